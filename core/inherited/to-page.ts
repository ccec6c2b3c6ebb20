import * as v from 'valibot';
import { type Block, BlockSchema } from '../page/blocks/block.ts';
import { GALLERY_GAP, type Gallery, galleryPerRow } from '../page/blocks/gallery/schema.ts';
import {
  newPlacement,
  type PlacedBlock,
  type Placement,
  type Position,
} from '../page/blocks/placement/schema.ts';
import { type Inline, isLinkAddress, type Mark, plainText } from '../page/inline.ts';
import { linkRuns } from '../page/link-runs.ts';
import { MOST_BLOCKS, type PageDoc } from '../page/model.ts';
import { fileHref } from '../page/page-address.ts';
import type { HouseRules } from '../page/target.ts';
import { closestWidth, isWidth } from '../page/width-limits.ts';
import type { Alt } from '../rights/label.ts';
import { isFileName } from '../words/file-name.ts';
import { primaryOf } from '../words/language-tag.ts';
import { isVagueLink } from '../words/vague-link.ts';
import { type InheritedFacts, nameOfLink } from './facts.ts';
import type { Inherited, InheritedPart, PictureUse } from './reading.ts';

/** What a piece says of itself already, so that a page says no more than what is otherwise on it. */
interface SaidByPiece {
  readonly id: string;
  readonly alt: Alt;
  readonly caption: string;
}

/** The pieces that an inherited page became, by their places in the lists of its reading; null for one that is left out. */
export interface Became {
  readonly files: readonly (SaidByPiece | null)[];
  readonly embeds: readonly (string | null)[];
  /** By address. */
  readonly documents: Readonly<Record<string, string>>;
}

export interface Wishes {
  /** Whether all is mended that can be safely; else it stands as it was read. */
  readonly mends: boolean;
  /** Whether links that do not answer any more become words. */
  readonly unlinksDead: boolean;
  /** What was said of uses of pictures that say nothing, by their places. */
  readonly alts?: Readonly<Record<string, Alt>>;
}

/** Three pictures that nothing stands between are one gallery: one or two are pictures of the text. */
const LEAST_GALLERY = 3;

/**
 * An inherited page as a page of a target: its text, its pictures where and as wide as they stood, never wider than they are, and what
 * is framed. `newId` gives each block that is made here an ID.
 */
export function toPage(
  reading: Inherited,
  facts: InheritedFacts,
  became: Became,
  rules: Pick<HouseRules, 'column' | 'language' | 'siteAddress'>,
  wishes: Wishes,
  newId: () => string,
): PageDoc {
  const parts = wishes.mends ? reading.mended : reading.asRead;
  const context: Making = { reading, facts, became, rules, wishes, newId };
  const inTurn = withoutSaidTwice(parts, reading.uses).flatMap((part) => placed(part, context));
  const pictures = new Set(became.files.flatMap((piece) => piece?.id ?? []));
  const blocks = (wishes.mends ? withGalleries(inTurn, pictures, newId) : inTurn).slice(0, MOST_BLOCKS);
  const isOther = primaryOf(reading.language) !== primaryOf(rules.language);
  const pieces = [
    ...became.files.map((piece) => piece?.id ?? null),
    ...became.embeds,
    ...Object.values(became.documents),
  ];
  return {
    title: reading.title,
    wants: [],
    tray: [...new Set(pieces.flatMap((piece) => piece ?? []))],
    ...(reading.summary === '' ? {} : { summary: reading.summary }),
    ...(isOther && reading.language !== '' ? { language: reading.language } : {}),
    blocks: blocks.length > 0 ? blocks : [{ type: 'paragraph', attrs: { id: newId() } }],
  };
}

interface Making {
  readonly reading: Inherited;
  readonly facts: InheritedFacts;
  readonly became: Became;
  readonly rules: Pick<HouseRules, 'column' | 'language' | 'siteAddress'>;
  readonly wishes: Wishes;
  readonly newId: () => string;
}

function placed(part: InheritedPart, context: Making): readonly Block[] {
  const { reading, became, newId } = context;
  switch (part.kind) {
    case 'block':
      return [withLinks(part.block, context)];
    case 'embed': {
      const asset = became.embeds[part.embed] ?? null;
      return asset === null ? [] : [{ type: 'placement', attrs: newPlacement(newId(), asset) }];
    }
    case 'picture': {
      const use = reading.uses[part.use];
      const piece = use ? (became.files[use.file] ?? null) : null;
      return use && piece
        ? [{ type: 'placement', attrs: placementOf(use, piece, context, context.wishes.alts?.[part.use]) }]
        : [];
    }
  }
}

/** A picture as it stood, as far as that does it no harm. */
function placementOf(
  use: PictureUse,
  piece: SaidByPiece,
  { facts, rules, wishes, newId }: Making,
  said: Alt | undefined,
): Placement {
  const own = facts.files[use.file]?.size.width ?? rules.column;
  const share = use.width?.unit === '%' ? (use.width.value / 100) * rules.column : (use.width?.value ?? own);
  const shown = wishes.mends ? Math.min(share, own) : share;
  const fills = shown >= rules.column * FILLS;
  const position = positionOf(use.side, fills);
  const isColumn = position === 'column';
  const wished = closestWidth({ unit: 'px', value: Math.round(shown) });
  return {
    ...newPlacement(newId(), piece.id, position),
    width: isColumn || !isWidth(wished) ? null : wished,
    click: clickOf(use, rules),
    alt: said === undefined ? altOf(use, piece, wishes) : unlessSaid(said, piece),
    caption: use.caption !== '' && use.caption !== piece.caption ? use.caption.slice(0, 5000) : null,
  };
}

/** From so much of the column on a picture is as wide as the column. */
const FILLS = 0.94;

function positionOf(side: PictureUse['side'], fills: boolean): Position {
  if (fills) return 'column';
  if (side === 'left') return 'beside-left';
  return side === 'right' ? 'beside-right' : 'centred';
}

function clickOf(
  { link, opensLarger }: PictureUse,
  rules: Pick<HouseRules, 'siteAddress'>,
): Placement['click'] {
  if (opensLarger) return { kind: 'larger' };
  const href = link === '' ? '' : onSite(link, rules);
  return href !== '' && isLinkAddress(href) ? { kind: 'link', href } : { kind: 'nothing' };
}

/** What the page says of a picture where its label does not: names of files are no words, and silence on a link is none. */
function altOf({ alt, link }: PictureUse, piece: SaidByPiece, { mends }: Wishes): Alt | null {
  const text = (alt ?? '').trim().slice(0, 1000);
  if (text === '') return alt !== null && link === '' && mends ? { kind: 'decorative' } : null;
  if (mends && isFileName(text)) return null;
  return piece.alt.kind === 'text' && piece.alt.text === text ? null : { kind: 'text', text };
}

/** What somebody said of it, where its label does not say the same. */
const unlessSaid = (said: Alt, piece: SaidByPiece): Alt | null =>
  JSON.stringify(said) === JSON.stringify(piece.alt) ? null : said;

/** An address of the target's own site as its path there, so that the page may move with it. */
function onSite(address: string, { siteAddress }: Pick<HouseRules, 'siteAddress'>): string {
  if (!URL.canParse(address) || !URL.canParse(siteAddress)) return address;
  const url = new URL(address);
  return url.origin === new URL(siteAddress).origin ? `${url.pathname}${url.search}${url.hash}` : address;
}

/** A block with its links where they lead today; what leads nowhere becomes words where that is wished. */
function withLinks(block: Block, context: Making): Block {
  return changedInlines(block, (inlines) => linked(inlines, context));
}

/** The same block with each run of words in it changed, however deep; as it was where it would be none any more. */
function changedInlines(block: Block, change: (inlines: readonly Inline[]) => readonly Inline[]): Block {
  const read = v.safeParse(BlockSchema, changed(block, change));
  return read.success ? read.output : block;
}

function changed(node: unknown, change: (inlines: readonly Inline[]) => readonly Inline[]): unknown {
  if (Array.isArray(node)) {
    const list: readonly unknown[] = node;
    const inlines = list.filter(isInline);
    const isRun = list.length > 0 && inlines.length === list.length;
    return isRun ? change(inlines) : list.map((one) => changed(one, change));
  }
  if (typeof node !== 'object' || node === null || !('content' in node)) return node;
  return { ...node, content: changed(node.content, change) };
}

const isInline = (node: unknown): node is Inline =>
  typeof node === 'object' &&
  node !== null &&
  'type' in node &&
  (node.type === 'text' || node.type === 'hardBreak');

function linked(inlines: readonly Inline[], { facts, became, rules, wishes }: Making): readonly Inline[] {
  return linkRuns(inlines).flatMap(({ link, inlines: run }): readonly Inline[] => {
    if (!link) return run;
    const document = became.documents[link.href];
    if (document !== undefined) return run.map((one) => withHref(one, fileHref(document)));
    const fact = facts.links[link.href];
    if (fact?.state === 'dead' && wishes.unlinksDead) return run.map(withoutLink);
    const to = fact?.state === 'moved' && wishes.mends ? fact.to : link.href;
    const name = wishes.mends && isVagueLink(plainText(run)) ? nameOfLink(facts, link.href) : '';
    const href = onSite(to, rules);
    const leading = run.map((one) => withHref(one, href));
    const [first] = leading;
    return name !== '' && first?.type === 'text' ? [{ ...first, text: name }] : leading;
  });
}

const isLink = ({ type }: Mark): boolean => type === 'link';

function withHref(inline: Inline, href: string): Inline {
  const marks = (inline.marks ?? []).map((mark) =>
    mark.type === 'link' ? { ...mark, attrs: { ...mark.attrs, href } } : mark,
  );
  return { ...inline, marks };
}

function withoutLink(inline: Inline): Inline {
  const { marks = [], ...rest } = inline;
  const others = marks.filter((mark) => !isLink(mark));
  return others.length > 0 ? { ...rest, marks: others } : rest;
}

/** A caption that also stood as a line under its picture is said once, with the picture. */
function withoutSaidTwice(
  parts: readonly InheritedPart[],
  uses: readonly PictureUse[],
): readonly InheritedPart[] {
  return parts.filter((part, at) => {
    const before = parts[at - 1];
    if (part.kind !== 'block' || part.block.type !== 'paragraph' || before?.kind !== 'picture') return true;
    const words = plainText(part.block.content).replace(/\s+/g, ' ').trim();
    return words === '' || words !== uses[before.use]?.caption;
  });
}

/** Pictures that nothing stands between, as one gallery. */
function withGalleries(
  blocks: readonly Block[],
  pictures: ReadonlySet<string>,
  newId: () => string,
): Block[] {
  const out: Block[] = [];
  let run: PlacedBlock[] = [];
  const end = () => {
    out.push(...(run.length >= LEAST_GALLERY ? [galleryOf(run, newId)] : run));
    run = [];
  };
  for (const block of blocks) {
    if (block.type === 'placement' && pictures.has(block.attrs.asset) && isInLine(block)) run.push(block);
    else {
      end();
      out.push(block);
    }
  }
  end();
  return out;
}

/** Beside the text a picture belongs to the text. */
const isInLine = ({ attrs }: PlacedBlock): boolean => /^(?:centred|column)$/.test(attrs.position);

const galleryOf = (content: readonly PlacedBlock[], newId: () => string): Gallery => ({
  type: 'gallery',
  attrs: { id: newId(), perRow: galleryPerRow(content.length), gap: GALLERY_GAP, caption: '' },
  content: content.map(({ type, attrs }) => ({ type, attrs: { ...attrs, position: 'column', width: null } })),
});
