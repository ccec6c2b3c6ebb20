import { offeredPicture, type PastedImage } from '#core/page/rich-pasted.ts';

/** The name of the block that offers a picture. It is the sheet's alone: no page that is kept has one. */
export const PICTURE_OFFER = 'pictureOffer';

/** The attribute under which an offered picture stands in HTML on its way into the editor. */
export const OFFER_ATTRIBUTE = 'data-picture-offer';

const RENAMED: Readonly<Record<string, string>> = { H1: 'h2', H5: 'h4', H6: 'h4' };

/**
 * Rich text as the sheet takes it: headings within its levels, and in the place of each picture an offer to take it in.
 * In a list or a table there is no place for one: it is offered after that.
 */
export function asSheetText(html: string): string {
  const { body } = new DOMParser().parseFromString(html, 'text/html');
  for (const heading of body.querySelectorAll('h1, h5, h6')) {
    const renamed = body.ownerDocument.createElement(RENAMED[heading.tagName] ?? 'h4');
    renamed.append(...heading.childNodes);
    heading.replaceWith(renamed);
  }
  // From the last to the first, so that what stands after each is parted from it once.
  for (const image of [...body.querySelectorAll('img')].reverse()) {
    if (isDot(image)) continue;
    const offer = body.ownerDocument.createElement('div');
    offer.setAttribute(OFFER_ATTRIBUTE, JSON.stringify(offeredPicture(partsOf(image))));
    const around = outermost(image);
    if (around) {
      around.after(offer);
      image.remove();
    } else {
      image.replaceWith(offer);
      liftOut(offer);
    }
  }
  return body.innerHTML;
}

/** A dot that counts readers, or holds a table open, is no picture. */
function isDot(image: HTMLImageElement): boolean {
  const [width, height] = [image.getAttribute('width'), image.getAttribute('height')].map(Number);
  return Boolean(width && height && width <= 2 && height <= 2);
}

function partsOf(image: HTMLImageElement): PastedImage {
  const sources = image.closest('picture')?.querySelectorAll('source') ?? [];
  return { img: said(image), sources: [...sources].map(said) };
}

const said = ({ attributes }: Element) => ({
  attributes: [...attributes].map(({ name, value }) => ({ name, value })),
});

/** The outermost list or table that something stands in. */
function outermost(element: Element): Element | null {
  let found: Element | null = null;
  for (
    let next = element.closest('ul, ol, table');
    next;
    next = next.parentElement?.closest('ul, ol, table') ?? null
  )
    found = next;
  return found;
}

const HOLDS_BLOCKS = 'body, div, section, article, main, figure, blockquote, header, footer, aside';

/** Brings an offer out of the paragraph, link or words that it stands in, which are parted there. */
function liftOut(offer: HTMLElement): void {
  for (
    let parent = offer.parentElement;
    parent && !parent.matches(HOLDS_BLOCKS);
    parent = offer.parentElement
  ) {
    const rest = parent.cloneNode(false);
    while (offer.nextSibling) rest.appendChild(offer.nextSibling);
    parent.after(offer);
    if (holdsSomething(rest)) offer.after(rest);
    if (!holdsSomething(parent)) parent.remove();
  }
}

/** Whether there is a picture or a letter in it: looked for from its beginning, and no further than to the first. */
function holdsSomething(node: Node): boolean {
  if (node instanceof Element && node.querySelector(`img, [${OFFER_ATTRIBUTE}]`)) return true;
  const texts = node.ownerDocument?.createTreeWalker(node, NodeFilter.SHOW_TEXT);
  for (let text = texts?.nextNode(); text; text = texts?.nextNode()) if (text.nodeValue?.trim()) return true;
  return false;
}
