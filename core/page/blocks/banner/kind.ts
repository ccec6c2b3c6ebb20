import { plateFor } from '../../../media/over-contrast.ts';
import { LINE_HEIGHT, OVER_MARGIN, OVER_PLACES, type OverPlace } from '../../../media/over-words.ts';
import type { Found } from '../../../proof/finding.ts';
import { escapeHtml } from '../../escape.ts';
import { LABEL_FACES } from '../../faces.ts';
import { roomAround } from '../../layout.ts';
import type { Piece } from '../../piece.ts';
import type { Room } from '../../room.ts';
import type { HouseRules } from '../../target.ts';
import type { BlockKind, RoomContext } from '../kind.ts';
import { withWholeLink } from '../whole-link.ts';
import { type BannerStanding, bannerAt, isPoor, pictureOf, saysSomething } from './judged.ts';
import { atPlace, bannerClass, bannerStyles } from './laid-out.ts';
import { readBanner } from './read.ts';
import { type Banner, type BannerWords, isInBanner, isInWords } from './schema.ts';
import {
  HEADING_SIZE,
  isMiddle,
  LEAST_BANNER_PX,
  PLATE_EDGE,
  WORDS_GAP,
  WORDS_SHARE,
  WORDS_SIZE,
} from './set.ts';

const INLINE_BANNER = 'clear:both;margin:12px 0 22px';

/** Its picture fills it; it stands out of the column only where it is on the page itself. */
function roomInside(
  room: Room,
  { attrs }: Pick<Banner, 'attrs'>,
  { rules }: Pick<RoomContext, 'rules'>,
): Room {
  return { ...roomAround(rules, attrs, room), sort: 'filled' };
}

/** A banner with its heading, or its first words, as the link of the whole; the very same where it says nothing. */
function withLink(block: Banner): Banner {
  const { link } = block.attrs;
  if (link === '') return block;
  const content = block.content.map((part) => {
    if (part.type !== 'bannerWords') return part;
    const said = withWholeLink(part.content, link);
    return said === part.content ? part : { ...part, content: said };
  });
  return content.every((part, at) => part === block.content[at]) ? block : { ...block, content };
}

/** A picture with real text over it (HTML, `div`; CSS Grid 2, `subgrid`), which stands under it where there is no room. */
export const banner: BlockKind<Banner> = {
  write: (block, context) => {
    const linked = withLink(block);
    const inner = context.inside(linked.content, roomInside(context.room, block, context));
    if (inner === '') return '';
    if (context.isInline) return `<div style="${INLINE_BANNER}">\n${inner}\n</div>`;
    // Without its picture nothing lies under the words.
    if (!context.isSource && !pictureOf(block, context.pieces)) return `<div>\n${inner}\n</div>`;
    const name = `${bannerClass(block.attrs)}${linked === block ? '' : ' linked'}`;
    return `<div class="${name}" style="${escapeHtml(bannerStyles(block.attrs))}">\n${inner}\n</div>`;
  },
  words: () => [],
  findings: (block, room, { rules, pieces }) =>
    findingsOf(block, pieces, rules, (viewport) =>
      bannerAt(block, { rules, pieces }, roomInside(room, block, { rules }), viewport),
    ),
  style: (rules) => bannerStyle(rules),
  reads: { 'div.banner': readBanner },
  inside: {
    of: ({ content }) => content,
    with: (block, blocks) => ({ ...block, content: blocks.filter(isInBanner) }),
    room: roomInside,
  },
};

export const bannerWords: BlockKind<BannerWords> = {
  write: ({ content }, context) => {
    const inner = context.inside(content, context.room);
    return inner === '' ? '' : `<div class="banner-words">\n${inner}\n</div>`;
  },
  words: () => [],
  inside: {
    of: ({ content }) => content,
    with: (block, blocks) => ({ ...block, content: blocks.filter(isInWords) }),
    room: (room) => room,
  },
};

function findingsOf(
  block: Banner,
  pieces: ReadonlyMap<string, Piece>,
  { proofWidths }: Pick<HouseRules, 'proofWidths'>,
  standingAt: (viewport: number) => BannerStanding | null,
): readonly Found[] {
  const { id, ink, plate } = block.attrs;
  const place = { kind: 'block', blockId: id } as const;
  const isSaid = saysSomething(block);
  if (!pictureOf(block, pieces) || !isSaid) {
    const pictures = block.content.filter(({ type }) => type === 'placement').length;
    return [{ code: 'banner-broken', values: { pictures, isSaid }, place, remedies: [] }];
  }
  const shown = proofWidths.flatMap((viewport) => {
    const standing = standingAt(viewport);
    return standing ? [{ viewport, ...standing }] : [];
  });
  const tall = shown.filter(({ isTall }) => isTall);
  const poor = shown.flatMap(({ viewport, contrast }) =>
    contrast && isPoor(contrast) ? [{ viewport, ...contrast }] : [],
  );
  const [worst] = [...poor].sort((one, other) => one.is - other.is);
  return [
    ...(tall.length > 0
      ? [
          {
            code: 'banner-full',
            values: {},
            place,
            viewports: tall.map(({ viewport }) => viewport),
            remedies: [],
          } as const,
        ]
      : []),
    ...(worst
      ? [
          {
            code: 'banner-faint',
            values: { contrast: worst.is, needed: worst.needed, hasPlate: plate !== null },
            place,
            viewports: poor.map(({ viewport }) => viewport),
            remedies: [{ kind: 'banner-plate', blockId: id, plate: plateFor(ink) }],
          } as const,
        ]
      : []),
  ];
}

const clamped = ({ least, share, most }: typeof HEADING_SIZE) =>
  `clamp(${least}px, ${share * 100}cqi, ${most}px)`;

const WORDS = '.banner > .banner-words';

/** Words at places of one sort. */
const wordsAt = (isOf: (place: OverPlace) => boolean) =>
  `.placard .banner:is(${OVER_PLACES.filter(isOf).map(atPlace).join(', ')}) > .banner-words`;

function bannerStyle({
  breakout,
  column,
  gutter,
}: Pick<HouseRules, 'breakout' | 'column' | 'gutter'>): string {
  const most = Math.max(breakout, column);
  return `.placard .banner { position: relative; display: grid; grid-template: auto auto auto / minmax(0, 1fr); container-type: inline-size; clear: both; margin: 12px 0 22px; }
.placard .banner.breakout { --room: min(${most}px, 100cqw - ${2 * gutter}px); }
.placard .banner.bleed { --room: 100cqw; }
.placard .banner:is(.breakout, .bleed) { width: var(--room); margin-left: calc(50% - var(--room) / 2); }
.banner > .placed { display: grid; grid-area: 1 / 1 / 3 / 2; grid-template: subgrid / minmax(0, 1fr); }
.banner > .placed > :not(figcaption) { grid-row: 1; }
.banner > .placed > figcaption { grid-row: 2; }
.banner.bleed > :is(.banner-words, .placed > figcaption) { padding-left: ${gutter}px; padding-right: ${gutter}px; }
${WORDS} { grid-area: 3 / 1 / 4 / 2; padding-top: 12px; font-family: ${LABEL_FACES}; }
${WORDS} > * { margin: 0; font-weight: 600; line-height: ${LINE_HEIGHT}; text-wrap: wrap; }
${WORDS} > * + * { margin-top: ${WORDS_GAP}px; }
.banner.linked > .banner-words a::after { content: ""; position: absolute; inset: 0; }
.banner.linked > .placed > figcaption { position: relative; z-index: 2; width: fit-content; }
.banner.linked:focus-within { outline: 2px solid currentColor; outline-offset: 4px; }
@media screen {
  @container (width >= ${LEAST_BANNER_PX}px) {
    .banner > .placed :is(picture, img, .larger) { display: block; height: 100%; object-fit: cover; }
    .placard ${WORDS} { grid-area: 1 / 1 / 2 / 2; z-index: 1; align-self: center; justify-self: center; max-width: ${WORDS_SHARE.middle * 100}cqi; margin: ${OVER_MARGIN * 100}cqi; padding: 0; color: var(--ink); text-align: center; }
    ${wordsAt((place) => !isMiddle(place))} { max-width: ${WORDS_SHARE.side * 100}cqi; }
    ${wordsAt((place) => place.startsWith('top'))} { align-self: start; }
    ${wordsAt((place) => place.startsWith('bottom'))} { align-self: end; }
    ${wordsAt((place) => place.endsWith('left'))} { justify-self: start; text-align: start; }
    ${wordsAt((place) => place.endsWith('right'))} { justify-self: end; text-align: end; }
    .placard ${WORDS} a { color: inherit; }
    ${WORDS} > :is(h2, h3, h4) { font-size: ${clamped(HEADING_SIZE)}; }
    ${WORDS} > p { font-size: ${clamped(WORDS_SIZE)}; }
    .placard .banner.plated > .banner-words { padding: ${PLATE_EDGE.rise}px ${PLATE_EDGE.side}px; background: var(--plate); }
  }
}`;
}
