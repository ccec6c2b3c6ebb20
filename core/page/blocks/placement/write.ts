import { DOCUMENT_FORMATS, type DocumentFacts } from '../../../document/formats.ts';
import type { EmbedForm } from '../../../embed/forms.ts';
import { writeEmbed } from '../../../embed/write.ts';
import { CUT_FORMATS } from '../../../media/formats.ts';
import type { OverWords } from '../../../media/over-words.ts';
import { messagesFor } from '../../../messages/messages.ts';
import { describedIn, descriptionId, writeDescription } from '../../described.ts';
import { embedHere, formHere } from '../../embed-here.ts';
import { escapeHtml } from '../../escape.ts';
import { INLINE_CAPTION, INLINE_PICTURE, INLINE_WORDS, inlineFigureStyle } from '../../inline-style.ts';
import { shownWidth } from '../../layout.ts';
import { linkOut } from '../../link-out.ts';
import { type Cut, type PicturePlan, planPicture } from '../../picture.ts';
import { pictureStyleCss, styleOn } from '../../picture-style.ts';
import type { HeldEmbed, OfKind, Piece } from '../../piece.ts';
import { sizesAt } from '../../sizes-at.ts';
import { altHere, captionHere, creditUnder, titleHere } from '../../words.ts';
import type { BlockContext, WriteContext } from '../../write-context.ts';
import { writeCredit } from '../../write-credit.ts';
import { figureClass, figureStyle } from './figure.ts';
import type { Placement } from './schema.ts';
import { writeSign } from './sign.ts';
import { writeFilm } from './write-film.ts';

/** A placement as a figure (HTML, `figure`, `picture`, `img`); the empty text where its piece is gone. */
export function writePlacement(placement: Placement, context: BlockContext): string {
  if (context.isSource) return writeSign(placement, context);
  const piece = context.pieces.get(placement.asset);
  if (!piece) return '';
  switch (piece.kind) {
    case 'picture':
      return writeFigure(placement, piece, context);
    case 'embed':
      return writeEmbedFigure(placement, piece, piece.embed, context);
    case 'document':
      return writeDocumentFigure(placement, piece, piece.document, context);
    case 'film':
      return writeFilmFigure(placement, piece, piece, context);
  }
}

function writeFigure(placement: Placement, piece: Piece, context: BlockContext): string {
  const plan = planPicture(context.rules, { placement, room: context.room }, piece);
  const shown = writePicture(placement, piece, plan, context);
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
  context: BlockContext,
): string {
  const { room, rules } = context;
  const plan = planPicture(rules, { placement, room }, piece);
  const { fallback } = plan;
  const poster = {
    address: context.addressOf(fallback),
    ...fallback.size,
    html: writePicture({ ...placement, alt: { kind: 'decorative' } }, piece, plan, context),
  };
  const column = Math.round(shownWidth(rules, placement, room, Math.max(...rules.proofWidths)));
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

/** A document by its first page, which leads to its file as what is written under it does: one link, named by those words. */
function writeDocumentFigure(
  placement: Placement,
  piece: Piece,
  document: DocumentFacts,
  context: BlockContext,
): string {
  const { room, rules } = context;
  const plan = planPicture(rules, { placement, room }, piece);
  const page = writePicture({ ...placement, alt: { kind: 'decorative' } }, piece, plan, context);
  const title = titleHere(rules, piece);
  const words = `${title} (${messagesFor(rules.language).document(document)})`;
  const inner = `<span class="file-page">${page}</span>\n<span class="file">${escapeHtml(words)}</span>`;
  const address = context.fileOf?.(`${piece.stem}.${piece.extension}`, piece.id);
  const { mime } = DOCUMENT_FORMATS[document.format];
  return [
    openFigure(placement, piece, plan, context),
    address ? `<a href="${escapeHtml(address)}" type="${mime}">${inner}</a>` : inner,
    writeCaption(placement, piece, context),
    '</figure>',
  ]
    .filter(Boolean)
    .join('\n');
}

/** A film or a recording that plays on the page, with what is written under it. */
function writeFilmFigure(
  placement: Placement,
  piece: Piece,
  held: Extract<OfKind, { readonly kind: 'film' }>,
  context: BlockContext,
): string {
  const plan = planPicture(context.rules, { placement, room: context.room }, piece);
  return [
    openFigure(placement, piece, plan, context),
    writeFilm(placement, piece, held, {
      ...context,
      still: () => writePicture({ ...placement, alt: { kind: 'decorative' } }, piece, plan, context),
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
  context: BlockContext,
): string {
  const isLicensed = creditUnder(context.rules, placement, piece, context.room).runs.some(
    ({ kind, address }) => kind === 'licence' && address,
  );
  const about = isLicensed
    ? ` vocab="https://schema.org/" typeof="ImageObject" resource="${escapeHtml(context.addressOf(fallback))}"`
    : '';
  const style = context.isInline ? inlineFigureStyle(placement) : figureStyle(placement);
  return `<figure class="${figureClass(placement, context.room, context.rules)}" style="${style}"${about}>`;
}

function writePicture(placement: Placement, piece: Piece, plan: PicturePlan, context: BlockContext): string {
  const sizes = sizesAt(plan.sizes(), context.screen ?? 1);
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
  const loading = placement.id === context.first ? ' fetchpriority="high"' : ' loading="lazy"';
  const alt = altSaid(placement, piece, plan, context);
  const details =
    alt !== '' && describedIn(context.rules, piece).length > 0
      ? ` aria-details="${escapeHtml(descriptionId(placement))}"`
      : '';
  const img = `<img src="${escapeHtml(context.addressOf(fallback))}"${set} width="${fallback.size.width}" height="${fallback.size.height}" alt="${escapeHtml(alt)}"${details}${styled(context, inlinePicture(placement, piece, context))}${loading} decoding="async">`;
  return sources.length > 0 ? `<picture>\n${sources.join('\n')}\n${img}\n</picture>` : img;
}

/** The alt text as it goes out. Of a picture that opens larger it is the name of a link, and says where that leads. */
function altSaid(
  placement: Placement,
  piece: Piece,
  { larger }: PicturePlan,
  { rules }: WriteContext,
): string {
  const { opensLarger } = messagesFor(rules.language);
  const alt = altHere(rules, placement, piece);
  const text = alt.kind === 'text' ? alt.text.trim() : '';
  if (!larger || placement.click.kind !== 'larger') return text;
  return text === '' ? opensLarger : `${text.replace(/[.\s]+$/u, '')}. ${opensLarger}`;
}

/** Words over a picture as text of the page, which can be read, found and translated; `style.ts` lays them there. */
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

/** The picture's own style, and that which it has on its target. */
function inlinePicture(placement: Placement, piece: Piece, { rules }: WriteContext): string {
  const style = piece.kind === 'picture' ? styleOn(rules.pictureStyles, placement) : null;
  return [INLINE_PICTURE, style ? pictureStyleCss(style) : ''].filter(Boolean).join(';');
}

function srcset(cuts: readonly Cut[], context: WriteContext): string {
  return cuts.map((cut) => `${escapeHtml(context.addressOf(cut))} ${cut.size.width}w`).join(', ');
}

function writeClick(placement: Placement, plan: PicturePlan, picture: string, context: WriteContext): string {
  if (placement.click.kind === 'link') {
    const out = linkOut(placement.click.href, context);
    if (!out) return picture;
    const language = out.hreflang === '' ? '' : ` hreflang="${escapeHtml(out.hreflang)}"`;
    return `<a href="${escapeHtml(out.href)}"${language}>${picture}</a>`;
  }
  if (!plan.larger || context.oneFileEach) return picture;
  return `<a class="larger" href="${escapeHtml(context.addressOf(plan.larger))}">${picture}</a>`;
}

function writeCaption(placement: Placement, piece: Piece, context: BlockContext): string {
  const caption = captionHere(context.rules, placement, piece);
  const credit = writeCredit(creditUnder(context.rules, placement, piece, context.room));
  const words = [caption && escapeHtml(caption), credit && `<span class="credit">${credit}</span>`]
    .filter(Boolean)
    .join(' ');
  const parts = [
    words,
    writeDescription(placement, piece, context.rules, {
      level: context.levels.get(placement.id) ?? 1,
      isInline: context.isInline ?? false,
    }),
  ].filter(Boolean);
  return parts.length > 0
    ? `<figcaption${styled(context, INLINE_CAPTION)}>${parts.join('\n')}</figcaption>`
    : '';
}
