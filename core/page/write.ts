import type { EmbedForm } from '../embed/forms.ts';
import { writeEmbed } from '../embed/write.ts';
import { CUT_FORMATS } from '../media/formats.ts';
import type { OverWords } from '../media/over-words.ts';
import { messagesFor } from '../messages/messages.ts';
import type { Made, Messages } from '../messages/table.ts';
import { type CreditPart, creditLead } from '../rights/attribution.ts';
import { describedIn, descriptionId, writeDescription } from './described.ts';
import { embedHere, formHere, type HeldEmbed, pictureUse } from './embed-here.ts';
import { escapeHtml } from './escape.ts';
import { INLINE_CAPTION, INLINE_PICTURE, INLINE_WORDS, inlineFigureStyle } from './inline-style.ts';
import { isBeside, shownWidth } from './layout.ts';
import {
  type Block,
  type Inline,
  type List,
  type ListItem,
  type Mark,
  type PageDoc,
  type Placement,
  placementsOf,
} from './model.ts';
import { allCuts, type Cut, type PicturePlan, type Piece, planPicture } from './picture.ts';
import { DEFAULT_SHARE, type HouseRules, marginsOf } from './target.ts';
import { altHere, captionHere, creditedAs, creditHere } from './words.ts';

/** What the writer needs besides the page: its target, its pieces, and where each cut will be found. */
export interface WriteContext {
  readonly rules: HouseRules;
  readonly pieces: ReadonlyMap<string, Piece>;
  readonly addressOf: (cut: Cut) => string;
  /** Whether sizes and sides stand in the HTML itself, for pages that do not take the style sheet. */
  readonly isInline?: boolean;
  /** Whether the page's title is left out, where the page that takes it has one. */
  readonly withoutTitle?: boolean;
  /** Whether each picture is one file alone, instead of one for each width and format. */
  readonly oneFileEach?: boolean;
}

/** Every file that a page's HTML names, each once. */
export function cutsOfPage(page: PageDoc, context: Pick<WriteContext, 'rules' | 'pieces'>): readonly Cut[] {
  const byName = new Map<string, Cut>();
  for (const placement of placementsOf(page)) {
    const piece = context.pieces.get(placement.asset);
    if (!piece) continue;
    for (const cut of cutsHere(placement, piece, context)) byName.set(cut.fileName, cut);
  }
  return [...byName.values()];
}

function cutsHere(
  placement: Placement,
  piece: Piece,
  { rules }: Pick<WriteContext, 'rules'>,
): readonly Cut[] {
  const use = pictureUse(rules, placement, piece);
  if (use === 'none') return [];
  const plan = planPicture(rules, placement, piece);
  return use === 'sizes' ? allCuts(plan) : [plan.fallback];
}

/**
 * The page as a fragment of HTML (WHATWG HTML, "figure", "picture", "img"): title, text and figures inside one
 * column. Only what the page model can say is ever written.
 */
export function writeFragment(page: PageDoc, context: WriteContext, foot = ''): string {
  const first = placementsOf(page)[0];
  const blocks = page.blocks.map((block) => writeBlock(block, context, first)).filter(Boolean);
  const title =
    page.title.trim() === '' || context.withoutTitle ? [] : [`<h1>${escapeHtml(page.title.trim())}</h1>`];
  return [
    '<div class="placard">',
    '<div class="placard-column">',
    ...title,
    ...blocks,
    ...(foot ? [foot] : []),
    '</div>',
    '</div>',
    '',
  ].join('\n');
}

/** The page as a whole document that refers to its style sheet. */
export function writeDocument(
  page: PageDoc,
  context: WriteContext & {
    readonly styleSheet: string;
    readonly head?: string;
    /** What stands under the page's text, inside its column. */
    readonly foot?: string;
  },
): string {
  return `<!DOCTYPE html>
<html lang="${escapeHtml(context.rules.language)}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escapeHtml(page.title.trim() || messagesFor(context.rules.language).untitledPage)}</title>
<link rel="stylesheet" href="${escapeHtml(context.styleSheet)}">
${context.head ?? ''}</head>
<body>
<main>
${writeFragment(page, context, context.foot)}</main>
</body>
</html>
`;
}

/** A block of text as HTML; the empty text for one without words. */
export function writeText(block: Exclude<Block, { readonly type: 'placement' }>): string {
  switch (block.type) {
    case 'paragraph':
      return isEmpty(block.content) ? '' : `<p>${writeInlines(block.content)}</p>`;
    case 'heading': {
      const { level } = block.attrs;
      return isEmpty(block.content) ? '' : `<h${level}>${writeInlines(block.content)}</h${level}>`;
    }
    case 'bulletList':
    case 'orderedList':
      return writeList(block);
  }
}

function writeBlock(block: Block, context: WriteContext, first: Placement | undefined): string {
  if (block.type !== 'placement') return writeText(block);
  const piece = context.pieces.get(block.attrs.asset);
  if (!piece) return '';
  const isFirst = block.attrs.id === first?.id;
  return piece.embed
    ? writeEmbedFigure(block.attrs, piece, piece.embed, context, isFirst)
    : writeFigure(block.attrs, piece, context, isFirst);
}

/** Whether a block goes out at all: empty paragraphs and headings, and pieces that are gone, do not. */
export function isWritten(block: Block, pieces: ReadonlyMap<string, unknown>): boolean {
  switch (block.type) {
    case 'paragraph':
    case 'heading':
      return !isEmpty(block.content);
    case 'placement':
      return pieces.has(block.attrs.asset);
    default:
      return true;
  }
}

function isEmpty(content: readonly Inline[] | undefined): boolean {
  return !content?.some((inline) => inline.type === 'text' && inline.text.trim() !== '');
}

function writeList(list: List): string {
  const items = list.content.map((item) => `<li>${writeItem(item)}</li>`).join('\n');
  if (list.type === 'bulletList') return `<ul>\n${items}\n</ul>`;
  const start = list.attrs && list.attrs.start !== 1 ? ` start="${list.attrs.start}"` : '';
  return `<ol${start}>\n${items}\n</ol>`;
}

function writeItem(item: ListItem): string {
  const [only] = item.content;
  if (item.content.length === 1 && only?.type === 'paragraph') return writeInlines(only.content);
  return item.content
    .map((part) => (part.type === 'paragraph' ? `<p>${writeInlines(part.content)}</p>` : writeList(part)))
    .join('\n');
}

function writeInlines(content: readonly Inline[] | undefined): string {
  return (content ?? [])
    .map((inline) =>
      inline.type === 'hardBreak' ? '<br>' : withMarks(escapeHtml(inline.text), inline.marks ?? []),
    )
    .join('');
}

function withMarks(html: string, marks: readonly Mark[]): string {
  return marks.reduceRight((inner, mark) => withMark(inner, mark), html);
}

function withMark(html: string, mark: Mark): string {
  switch (mark.type) {
    case 'bold':
      return `<strong>${html}</strong>`;
    case 'italic':
      return `<em>${html}</em>`;
    case 'link':
      return `<a href="${escapeHtml(mark.attrs.href)}">${html}</a>`;
  }
}

function writeFigure(placement: Placement, piece: Piece, context: WriteContext, isFirst: boolean): string {
  const plan = planPicture(context.rules, placement, piece);
  const shown = writePicture(placement, piece, plan, context, isFirst);
  const worded = plan.over ? writeOver(shown, plan.over, context) : shown;
  const picture = writeClick(placement, plan, worded, context);
  const caption = writeCaption(placement, piece, context);
  return [openFigure(placement, piece, plan, context), picture, caption, '</figure>']
    .filter(Boolean)
    .join('\n');
}

/** An embed in the form that suits the target, written from its model; its poster is the piece's picture. */
function writeEmbedFigure(
  placement: Placement,
  piece: Piece,
  held: HeldEmbed,
  context: WriteContext,
  isFirst: boolean,
): string {
  const { rules } = context;
  const plan = planPicture(rules, placement, piece);
  const { fallback } = plan;
  const poster = {
    address: context.addressOf(fallback),
    ...fallback.size,
    html: writePicture({ ...placement, alt: { kind: 'decorative' } }, piece, plan, context, isFirst),
  };
  const column = Math.round(shownWidth(rules, placement, Math.max(...rules.proofWidths)));
  return [
    openFigure(placement, piece, plan, context),
    writeEmbed(formOut(formHere(rules, placement, held), context), {
      embed: embedHere(placement, held),
      hosts: held.hosts,
      target: { ...rules, column },
      poster,
    }),
    writeCaption(placement, piece, context),
    '</figure>',
  ]
    .filter(Boolean)
    .join('\n');
}

/** A click that loads needs the style sheet and the script; without them it is a poster that leads to the host. */
function formOut(form: EmbedForm, { isInline, oneFileEach }: WriteContext): EmbedForm {
  return form === 'click' && (isInline || oneFileEach) ? 'poster' : form;
}

/** A figure; one with a licence says which picture that is of. */
function openFigure(
  placement: Placement,
  piece: Piece,
  { fallback }: PicturePlan,
  context: WriteContext,
): string {
  const isLicensed = creditHere(context.rules, placement, piece).some(
    ({ kind, address }) => kind === 'licence' && address,
  );
  const about = isLicensed
    ? ` vocab="https://schema.org/" typeof="ImageObject" resource="${escapeHtml(context.addressOf(fallback))}"`
    : '';
  const style = context.isInline ? inlineFigureStyle(placement) : figureStyle(placement);
  return `<figure class="${figureClass(placement)}" style="${style}"${about}>`;
}

/** The classes of a placement's figure, as `style-sheet.ts` lays them out. */
export function figureClass(placement: Placement): string {
  const stacks = isBeside(placement) && placement.stackBelow !== null ? ` stack-${placement.stackBelow}` : '';
  return `placed ${placement.position}${stacks}`;
}

/** Width and margins of a placement as custom properties. */
export function figureStyle(placement: Placement): string {
  const { top, right, bottom, left } = marginsOf(placement);
  const width = placement.width
    ? `${placement.width.value}${placement.width.unit}`
    : `${DEFAULT_SHARE[placement.position] * 100}%`;
  return `--w:${width};--t:${top}px;--r:${right}px;--b:${bottom}px;--l:${left}px`;
}

function writePicture(
  placement: Placement,
  piece: Piece,
  plan: PicturePlan,
  context: WriteContext,
  isFirst: boolean,
): string {
  const sizes = plan.sizes();
  const others = context.oneFileEach ? [] : plan.formats.slice(0, -1);
  const sources = others.map((format) => {
    const set = srcset(plan.cutsOf(format), context);
    return `<source type="${CUT_FORMATS[format].mime}" srcset="${set}" sizes="${sizes}">`;
  });
  const { fallback } = plan;
  const set =
    plan.ladder.length > 1 && !context.oneFileEach
      ? ` srcset="${srcset(plan.cutsOf(fallback.format), context)}" sizes="${sizes}"`
      : '';
  // The first picture is likely in sight at once: loading it lazily would hold back the largest paint.
  const loading = isFirst ? ' fetchpriority="high"' : ' loading="lazy"';
  const alt = altSaid(placement, piece, plan, messagesFor(context.rules.language));
  const details =
    alt !== '' && describedIn(piece).length > 0
      ? ` aria-details="${escapeHtml(descriptionId(placement))}"`
      : '';
  const img = `<img src="${escapeHtml(context.addressOf(fallback))}"${set} width="${fallback.size.width}" height="${fallback.size.height}" alt="${escapeHtml(alt)}"${details}${styled(context, INLINE_PICTURE)}${loading} decoding="async">`;
  return sources.length > 0 ? `<picture>\n${sources.join('\n')}\n${img}\n</picture>` : img;
}

/** The alt text as it goes out. Of a picture that opens larger it is the name of a link, and says where that leads. */
function altSaid(
  placement: Placement,
  piece: Piece,
  { larger }: PicturePlan,
  { opensLarger }: Messages,
): string {
  const alt = altHere(placement, piece);
  const text = alt.kind === 'text' ? alt.text.trim() : '';
  if (!larger || placement.click.kind !== 'larger') return text;
  return text === '' ? opensLarger : `${text.replace(/[.\s]+$/u, '')}. ${opensLarger}`;
}

/** Words over a picture as text of the page, which can be read, found and translated; `style-sheet.ts` lays them there. */
function writeOver(picture: string, words: OverWords, { isInline }: WriteContext): string {
  const text = words.text.split('\n').map(escapeHtml).join('<br>');
  // What lays them over the picture is the style sheet: without it they stand under it.
  if (isInline) return `<div>\n${picture}\n<p style="${INLINE_WORDS}">${text}</p>\n</div>`;
  return `<div class="worded">\n${picture}\n<p class="${overClass(words)}" style="${overStyle(words)}"><span>${text}</span></p>\n</div>`;
}

export function overClass({ place, plate }: OverWords): string {
  return `over ${place.replace(' ', '-')}${plate ? ' plated' : ''}`;
}

/** Size, in hundredths of the picture's width, and colours of words as custom properties. */
export function overStyle({ size, ink, plate }: OverWords): string {
  return `--s:${size / 10};--ink:${ink}${plate ? `;--plate:${plate}` : ''}`;
}

const styled = ({ isInline }: WriteContext, style: string) => (isInline ? ` style="${style}"` : '');

function srcset(cuts: readonly Cut[], context: WriteContext): string {
  return cuts.map((cut) => `${escapeHtml(context.addressOf(cut))} ${cut.size.width}w`).join(', ');
}

function writeClick(placement: Placement, plan: PicturePlan, picture: string, context: WriteContext): string {
  if (placement.click.kind === 'link') return `<a href="${escapeHtml(placement.click.href)}">${picture}</a>`;
  if (!plan.larger || context.oneFileEach) return picture;
  return `<a href="${escapeHtml(context.addressOf(plan.larger))}">${picture}</a>`;
}

function writeCaption(placement: Placement, piece: Piece, context: WriteContext): string {
  const caption = captionHere(placement, piece);
  const messages = messagesFor(context.rules.language);
  const credit = writeCredit(creditHere(context.rules, placement, piece), creditedAs(piece), messages);
  const words = [caption && escapeHtml(caption), credit && `<span class="credit">${credit}</span>`]
    .filter(Boolean)
    .join(' ');
  const parts = [words, writeDescription(placement, piece, messages)].filter(Boolean);
  return parts.length > 0
    ? `<figcaption${styled(context, INLINE_CAPTION)}>${parts.join('\n')}</figcaption>`
    : '';
}

/**
 * A credit line as HTML. In a figure the licence is linked with `rel="license"` (HTML, link type "license") and says by
 * `property` whose it is: that of the figure's picture, not of the whole document (RDFa Lite 1.1; schema.org `license`).
 */
export function writeCredit(
  parts: readonly CreditPart[],
  made: Made,
  messages: Messages,
  isInFigure = true,
): string {
  if (parts.length === 0) return '';
  const html = parts.map((part) => {
    const text = escapeHtml(part.text);
    if (!part.address) return text;
    const rel = isInFigure && part.kind === 'licence' ? ' rel="license" property="license"' : '';
    return `<a href="${escapeHtml(part.address)}"${rel}>${text}</a>`;
  });
  return `${creditLead(parts, made, messages)}${html.join(', ')}.`;
}
