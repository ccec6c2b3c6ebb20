import { messagesFor } from '../messages/messages.ts';
import { anchorsOf, anchorsOut } from './anchors.ts';
import type { Block } from './blocks/block.ts';
import { kindOf } from './blocks/kinds.ts';
import { writeCreditsAtFoot } from './credits.ts';
import { pictureUse } from './embed-here.ts';
import { escapeHtml } from './escape.ts';
import { largerFile } from './larger-file.ts';
import { firstSeen, teaserOf } from './lead.ts';
import { linkedPictures } from './linked-pictures.ts';
import type { PageDoc } from './model.ts';
import { headTitleOf, writePageHead } from './page-head.ts';
import { allCuts, type Cut, planPicture } from './picture.ts';
import type { Piece } from './piece.ts';
import { columnRoom, type Room } from './room.ts';
import type { Standing } from './standing.ts';
import type { HouseRules } from './target.ts';
import { standingsOf, walkPage } from './walk.ts';
import type { BlockContext, WriteContext } from './write-context.ts';

/** Every file that a page's HTML names, each once. */
export function cutsOfPage(page: PageDoc, context: Pick<WriteContext, 'rules' | 'pieces'>): readonly Cut[] {
  const byName = new Map<string, Cut>();
  for (const standing of standingsOf(page, context)) {
    const piece = context.pieces.get(standing.placement.asset);
    if (!piece) continue;
    for (const cut of cutsHere(standing, piece, context)) byName.set(cut.fileName, cut);
  }
  for (const piece of linkedPictures(page, context.pieces)) {
    const cut = largerFile(context.rules, piece);
    if (cut) byName.set(cut.fileName, cut);
  }
  return [...byName.values()];
}

function cutsHere(standing: Standing, piece: Piece, { rules }: Pick<WriteContext, 'rules'>): readonly Cut[] {
  const use = pictureUse(rules, standing.placement, piece);
  if (use === 'none') return [];
  const plan = planPicture(rules, standing, piece);
  return use === 'sizes' ? allCuts(plan) : [plan.fallback];
}

/**
 * The page as a fragment of HTML (WHATWG HTML, "figure", "picture", "img"): title, text and figures inside one
 * column. Only what the page model can say is ever written.
 */
export function writeFragment(page: PageDoc, context: WriteContext, foot = ''): string {
  const headings = anchorsOf(page, context.rules.language);
  const whole: OfPage = {
    first: firstSeen(page)?.id,
    headings,
    anchors: anchorsOut(page, headings),
    levels: levelsOf(page),
  };
  const title =
    page.title.trim() === '' || context.withoutTitle ? [] : [`<h1>${escapeHtml(page.title.trim())}</h1>`];
  return [
    // The site that it is put into is in its own language (WHATWG HTML, 3.2.6.2; WCAG 2.2, 3.1.2).
    page.language === undefined
      ? '<div class="placard">'
      : `<div class="placard" lang="${escapeHtml(page.language)}">`,
    '<div class="placard-column">',
    ...title,
    ...writeBlocks(page.blocks, columnRoom(context.rules), context, whole),
    ...[context.rules.creditsAt === 'foot' ? writeCreditsAtFoot(page, context) : '', foot].filter(Boolean),
    '</div>',
    '</div>',
    '',
  ].join('\n');
}

/** What is settled once for a page, and asked by its blocks. */
type OfPage = Pick<BlockContext, 'first' | 'headings' | 'anchors' | 'levels'>;

const NO_PAGE: OfPage = { first: undefined, headings: [], anchors: new Map(), levels: new Map() };

function levelsOf(page: PageDoc): ReadonlyMap<string, number> {
  const levels = new Map<string, number>();
  let level = 1;
  for (const block of walkPage(page)) {
    if (block.type === 'heading') level = block.attrs.level;
    else if (block.type === 'placement') levels.set(block.attrs.id, level);
  }
  return levels;
}

function writeBlocks(
  blocks: readonly Block[],
  room: Room,
  context: WriteContext,
  whole: OfPage,
): readonly string[] {
  const here: BlockContext = {
    ...context,
    room,
    ...whole,
    inside: (inner, innerRoom) => writeBlocks(inner, innerRoom, context, whole).join('\n'),
  };
  return blocks.flatMap((block) => {
    const html = kindOf(block).write(block, here);
    if (html === '') return [];
    return context.isMarked ? marked(html, block.attrs.id) : html;
  });
}

/** A block as HTML with its ID on its element. */
const marked = (html: string, id: string) => html.replace(/^<[a-z][a-z0-9]*/, `$& data-block="${id}"`);

/** The page as a listing shows it; the empty text where it has no teaser. `href` is where it leads. */
export function writeTeaser(page: PageDoc, context: WriteContext, href: string): string {
  const teaser = teaserOf(page);
  if (!teaser) return '';
  const listing = { href, title: page.title.trim() || messagesFor(context.rules.language).untitledPage };
  return writeBlocks([teaser], columnRoom(context.rules), { ...context, listing }, NO_PAGE).join('');
}

/** Teasers in a row, as a document that refers to its style sheet. */
export function writeListing(
  teasers: readonly string[],
  {
    rules,
    styleSheet,
    head = '',
  }: Pick<WriteContext, 'rules'> & { readonly styleSheet: string; readonly head?: string },
): string {
  return writeShell(
    { rules, styleSheet, head, title: rules.name },
    `<div class="placard">
<div class="listing">
<h1>${escapeHtml(rules.name)}</h1>
${teasers.join('\n')}
</div>
</div>
`,
  );
}

interface Shell extends Pick<WriteContext, 'rules'> {
  readonly title: string;
  readonly styleSheet: string;
  readonly head?: string;
}

/** A whole document (WHATWG HTML, 4.1) round what is its main part, in the language of its target. */
function writeShell({ rules, title, styleSheet, head = '' }: Shell, main: string): string {
  return `<!DOCTYPE html>
<html lang="${escapeHtml(rules.language)}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escapeHtml(title)}</title>
<link rel="stylesheet" href="${escapeHtml(styleSheet)}">
${head}</head>
<body>
<main>
${main}</main>
</body>
</html>
`;
}

/**
 * The blocks of a page as they stand in source, one after the other, each with its ID and those of the blocks in it as
 * `data-block`; empty for one that says nothing.
 */
export function writeForSource(
  page: PageDoc,
  { rules, pieces }: Pick<WriteContext, 'rules' | 'pieces'>,
): readonly string[] {
  const context = { rules, pieces, addressOf: () => '', isSource: true, isMarked: true };
  const headings = anchorsOf(page, rules.language);
  const whole: OfPage = {
    first: undefined,
    headings,
    anchors: anchorsOut(page, headings),
    levels: levelsOf(page),
  };
  const room = columnRoom(rules);
  return page.blocks.map((block) => writeBlocks([block], room, context, whole).join(''));
}

/** One block without pieces as HTML, as it stands in the column; the empty text for one that says nothing. */
export function writeText(block: Block, rules: HouseRules): string {
  const context = { rules, pieces: new Map(), addressOf: () => '' };
  return writeBlocks([block], columnRoom(rules), context, NO_PAGE).join('');
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
  const title = headTitleOf(page) || messagesFor(context.rules.language).untitledPage;
  const head = `${writePageHead(page, context)}${context.head ?? ''}`;
  return writeShell({ ...context, title, head }, writeFragment(page, context, context.foot));
}
