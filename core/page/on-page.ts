import { messagesFor } from '../messages/messages.ts';
import { escapeHtml } from './escape.ts';
import { LABEL_FACES } from './faces.ts';
import { linkedPictures } from './linked-pictures.ts';
import type { PageDoc } from './model.ts';
import type { Piece } from './piece.ts';
import { placementsOf, walkPage } from './walk.ts';

/** Puts the divider between before and after into the hands of readers: a slider (HTML, `input type=range`) over the pictures. */
const DIVIDER = `const divide = () => {
  for (const pair of document.querySelectorAll('.before-after')) {
    if (pair.querySelector('input')) continue;
    const slider = document.createElement('input');
    slider.type = 'range';
    slider.value = parseInt(pair.style.getPropertyValue('--at'), 10);
    slider.setAttribute('aria-label', pair.dataset.divider);
    slider.addEventListener('input', () => pair.style.setProperty('--at', slider.value + '%'));
    pair.append(slider);
  }
};
if (document.readyState === 'loading') addEventListener('DOMContentLoaded', divide);
else divide();
`;

/**
 * Opens the larger picture that a link leads to over the page (HTML, `dialog`), with those of its gallery behind one another:
 * by arrow keys, by swipe, by button. A press with a key that opens elsewhere, and a page without scripts, follow the link.
 */
const LARGER = `{
  const said = document.currentScript.dataset;
  const button = (name, sign, press) => {
    const made = document.createElement('button');
    made.type = 'button';
    made.className = name;
    made.textContent = sign;
    made.setAttribute('aria-label', said[name]);
    made.addEventListener('click', press);
    return made;
  };
  const open = (link) => {
    const links = [...(link.closest('.gallery') ?? link.parentElement).querySelectorAll('a.larger')];
    const dialog = document.createElement('dialog');
    const img = document.createElement('img');
    const words = document.createElement('p');
    let at = links.indexOf(link);
    const show = (by) => {
      at = (at + by + links.length) % links.length;
      const link = links[at];
      const thumb = link.querySelector('img');
      const caption = thumb ? link.closest('figure').querySelector('figcaption') : link;
      img.src = link.href;
      img.alt = thumb ? thumb.alt.replace(said.opens, '').trim() : (link.dataset.alt ?? '');
      words.textContent = [...(caption?.childNodes ?? [])].filter((one) => one.nodeName !== 'DETAILS').map((one) => one.textContent).join('').trim();
      dialog.setAttribute('aria-label', img.alt || words.textContent || said.opens);
    };
    dialog.className = 'shown-large';
    dialog.append(img, words, button('close', '\\u00d7', () => dialog.close()));
    if (links.length > 1)
      dialog.append(button('back', '\\u2039', () => show(-1)), button('next', '\\u203a', () => show(1)));
    dialog.addEventListener('keydown', ({ key }) => {
      if (links.length > 1 && (key === 'ArrowLeft' || key === 'ArrowRight')) show(key === 'ArrowLeft' ? -1 : 1);
    });
    let from = null;
    dialog.addEventListener('pointerdown', ({ clientX }) => { from = clientX; });
    dialog.addEventListener('pointerup', ({ clientX, target }) => {
      const by = from === null ? 0 : clientX - from;
      from = null;
      if (links.length > 1 && Math.abs(by) > 40) show(by > 0 ? -1 : 1);
      else if (target === dialog) dialog.close();
    });
    img.addEventListener('dragstart', (event) => event.preventDefault());
    dialog.addEventListener('close', () => { dialog.remove(); links[at].focus(); });
    show(0);
    links[at].closest('.placard').append(dialog);
    dialog.showModal();
  };
  document.addEventListener('click', (event) => {
    const link = event.target instanceof Element ? event.target.closest('a.larger') : null;
    if (!link || event.defaultPrevented || event.ctrlKey || event.metaKey || event.shiftKey || event.altKey) return;
    event.preventDefault();
    open(link);
  });
}
`;

/** How a picture looks that is shown large over the page. */
export const LARGER_STYLE = `
.placard .shown-large { box-sizing: border-box; width: 100%; height: 100%; max-width: none; max-height: none; margin: 0; padding: 16px; border: 0; background: #12191cf2; color: #ffffff; touch-action: pan-y pinch-zoom; user-select: none; }
.placard .shown-large[open] { display: grid; grid-template: minmax(0, 1fr) auto / minmax(0, 1fr); gap: 12px; place-items: center; }
.shown-large img { display: block; max-width: 100%; max-height: 100%; }
.placard .shown-large p { margin: 0; max-width: 70ch; font: 15px/1.4 ${LABEL_FACES}; text-align: center; }
.shown-large button { position: absolute; width: 48px; height: 48px; padding: 0; border: 0; background: #12191c; color: #ffffff; font: 28px/48px ${LABEL_FACES}; cursor: pointer; }
.shown-large button:focus-visible { outline: 3px solid #ffffff; outline-offset: -6px; }
.shown-large .close { top: 0; right: 0; }
.shown-large .back { top: calc(50% - 24px); left: 0; }
.shown-large .next { top: calc(50% - 24px); right: 0; }`;

/** The scripts of pages, for the preview of any. */
export const PAGE_SCRIPT = `${DIVIDER}${LARGER}`;

/** The element that asks for the script of a page, with the words that it needs. */
export function scriptElement(address: string, language: string): string {
  const { large, opensLarger: opens } = messagesFor(language);
  const words = Object.entries({ ...large, opens }).map(
    ([name, said]) => ` data-${name}="${escapeHtml(said)}"`,
  );
  return `<script src="${escapeHtml(address)}"${words.join('')} async></script>\n`;
}

/** What a page carries besides its HTML so that readers can do with it what is more than following links; often nothing. */
export function pageScript(page: Pick<PageDoc, 'blocks'>, pieces: ReadonlyMap<string, Piece>): string {
  const hasPair = [...walkPage(page)].some(({ type }) => type === 'beforeAfter');
  return `${hasPair ? DIVIDER : ''}${opensLarger(page, pieces) ? LARGER : ''}`;
}

/** Whether a picture of a page opens larger, from its thumbnail or from words. */
export function opensLarger(page: Pick<PageDoc, 'blocks'>, pieces: ReadonlyMap<string, Piece>): boolean {
  return (
    placementsOf(page).some(({ click }) => click.kind === 'larger') || linkedPictures(page, pieces).length > 0
  );
}
