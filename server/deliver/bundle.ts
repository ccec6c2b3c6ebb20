import { copyFile, mkdir, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { EMBED_SCRIPT } from '#core/embed/on-page.ts';
import { imageObjects } from '#core/formats/jsonld.ts';
import { metadataOfLabel } from '#core/formats/metadata.ts';
import { recipeKey } from '#core/media/recipe-key.ts';
import { messagesFor } from '#core/messages/messages.ts';
import type { Messages } from '#core/messages/table.ts';
import { writeAlternates } from '#core/page/alternates.ts';
import type { Placement } from '#core/page/blocks/placement/schema.ts';
import { creditsOfPage, writeCredits } from '#core/page/credits.ts';
import { embedsOfPage } from '#core/page/embeds-of-page.ts';
import { escapeHtml } from '#core/page/escape.ts';
import { filesOfPage } from '#core/page/files-of-page.ts';
import { pageScript, scriptElement } from '#core/page/on-page.ts';
import { allCuts, type Cut, planPicture } from '#core/page/picture.ts';
import { redirectsOf } from '#core/page/redirects.ts';
import { documentStyle, styleSheet } from '#core/page/style-sheet.ts';
import { standingsOf } from '#core/page/walk.ts';
import { creditHere } from '#core/page/words.ts';
import { cutsOfPage, writeDocument, writeListing, writeTeaser } from '#core/page/write.ts';
import type { WriteContext } from '#core/page/write-context.ts';
import { creditText } from '#core/rights/credit.ts';
import { labelIn } from '#core/rights/label-in.ts';
import type { Context } from '../context.ts';
import { filesOfRow, writeGoing } from '../films/files-out.ts';
import { writeSidecar } from '../gather/sidecar.ts';
import { ensureCut } from '../imaging/cut-store.ts';
import { inFiles, outgoing } from '../pages/proof.ts';
import type { WholePage } from '../pages/store.ts';
import { alternatesOf } from '../pages/translations.ts';
import { formerNames } from '../shelf/names-out.ts';
import { cutKey } from '../storage/storage.ts';
import { FONT_FILES, fontFaces, fontFile } from './fonts.ts';
import { placedAssets } from './placed.ts';
import { taggedFile } from './tagged.ts';

/** Told after each file, so that long work shows how far it is and can be stopped. */
export type Progress = (done: number, of: number, words: string) => Promise<void>;

/**
 * Writes a page as files into a folder: `index.html`, its style sheet and faces, every cut with its label inside, its documents,
 * `credits.html` and `media.jsonld`; `teaser.html` where it has a teaser; `redirects.json` where a piece went out under another name. Returns the names of the files, in the order they were written.
 */
export async function writeBundle(
  context: Context,
  whole: WholePage,
  folder: string,
  progress: Progress,
): Promise<readonly string[]> {
  const going = outgoing(whole);
  const cuts = cutsOfPage(whole.doc, going);
  const hasEmbeds = embedsOfPage(whole.doc, whole.rules, whole.pieces).length > 0;
  const script = pageScript(whole.doc, whole.pieces);
  const media = imageObjects(whole.doc, whole.pieces, whole.rules, { addressOf: inMedia, fileOf: inFiles });
  const isCreditsLinked =
    whole.rules.creditsAt === 'picture' && creditsOfPage(whole.doc, whole.pieces, whole.rules).length > 0;
  const alternates = writeAlternates(await alternatesOf(context, whole));
  const texts: [string, string][] = [
    [
      'index.html',
      writeDocument(whole.doc, {
        ...going,
        styleSheet: 'style.css',
        head: `${PAGE_LINKS}${alternates}${linkedData(media)}${hasEmbeds ? EMBED_HEAD : ''}${script === '' ? '' : scriptElement('page.js', whole.rules.language)}`,
        foot: isCreditsLinked ? creditsLink(messagesFor(whole.rules.language)) : '',
      }),
    ],
    [
      'style.css',
      `${fontFaces('fonts')}${documentStyle(whole.rules)}${styleSheet(whole.rules, whole.doc, whole.pieces)}`,
    ],
    ...teaserFile(whole, going),
    ['credits.html', writeCredits(whole.doc, whole.pieces, whole.rules)],
    ['media.jsonld', `${JSON.stringify(media, null, 2)}\n`],
  ];
  if (hasEmbeds) texts.push(['embeds.js', EMBED_SCRIPT]);
  if (script !== '') texts.push(['page.js', script]);
  const redirects = redirectsOf(cuts, whole.pieces, await formerNames(context, whole.assets), inMedia);
  if (redirects.length > 0) texts.push(['redirects.json', `${JSON.stringify(redirects, null, 2)}\n`]);
  const written: string[] = [];
  const into = async (name: string, write: (path: string) => Promise<void>) => {
    const path = join(folder, name);
    await mkdir(dirname(path), { recursive: true });
    await write(path);
    written.push(name);
  };
  for (const [name, text] of texts) await into(name, (path) => writeFile(path, text));
  for (const file of FONT_FILES) await into(`fonts/${file}`, (path) => copyFile(fontFile(file) ?? '', path));
  for (const [at, cut] of cuts.entries()) {
    await progress(at, cuts.length, `Making ${cut.fileName}`);
    await into(inMedia(cut.fileName), (path) => writeCut(context, whole, cut, path));
  }
  const asked = filesOfPage(whole.doc, going);
  for (const row of placedAssets(whole)) {
    const files = (await filesOfRow(context, row)).filter(({ name }) => asked.has(name));
    for (const { name, from } of files)
      await into(inFiles(name), async (path) => {
        await writeGoing(context, from, path);
        if (row.kind === 'film') await writeFilmLabel(context, whole, row, path);
      });
    // In containers that hold no label it lies beside.
    if (row.kind === 'film' && files.length > 0)
      await into(inFiles(`${row.stem}.xmp`), (path) => writeSidecar(context, row.label, '', path));
  }
  return written;
}

/** The page as a listing shows it, where it has a teaser, to be put in one. */
function teaserFile(whole: WholePage, going: WriteContext): readonly [string, string][] {
  const teaser = writeTeaser(whole.doc, going, 'index.html');
  return teaser === ''
    ? []
    : [['teaser.html', writeListing([teaser], { rules: whole.rules, styleSheet: 'style.css' })]];
}

/** What is said of the page's pictures, for machines and for people, beside it (HTML, link types). */
const PAGE_LINKS = '<link rel="alternate" type="application/ld+json" href="media.jsonld">\n';
const creditsLink = ({ credits }: Messages) =>
  `<p><a href="credits.html">${escapeHtml(credits.link)}</a></p>`;

/** JSON-LD 1.1 in HTML: nothing in it ends the element that it stands in. */
const linkedData = (media: unknown) =>
  `<script type="application/ld+json">${JSON.stringify(media).replaceAll('<', '\\u003c')}</script>\n`;

const EMBED_HEAD = '<script src="embeds.js" async></script>\n';

const inMedia = (fileName: string) => `media/${fileName}`;

/** The uses that cuts are made for, by the names of their files: another use of the same piece may owe another credit. */
const placementsByFile = new WeakMap<WholePage, ReadonlyMap<string, Placement>>();

function placementFor(whole: WholePage, { fileName }: Cut): Placement | undefined {
  const known = placementsByFile.get(whole) ?? everyPlacement(whole);
  placementsByFile.set(whole, known);
  return known.get(fileName);
}

function everyPlacement({ doc, rules, pieces }: WholePage): ReadonlyMap<string, Placement> {
  const found = new Map<string, Placement>();
  for (const standing of standingsOf(doc, { rules, pieces })) {
    const piece = pieces.get(standing.placement.asset);
    if (!piece) continue;
    for (const { fileName } of allCuts(planPicture(rules, standing, piece)))
      if (!found.has(fileName)) found.set(fileName, standing.placement);
  }
  return found;
}

/** Containers of films that a label is written into: XMP in an ISO file (XMP Specification, part 3, 1.2.6). */
const HOLDS_LABEL = /\.(?:mp4|m4a)$/;

async function writeFilmLabel(
  context: Context,
  whole: WholePage,
  row: WholePage['assets'][number],
  path: string,
): Promise<void> {
  if (!HOLDS_LABEL.test(path)) return;
  const tags = onlyXmp(metadataOfLabel(labelIn(row.label, whole.rules.language), ''));
  // A file that takes no label plays all the same, and its label lies beside it.
  await context.metadata.write(path, tags).catch((error: unknown) => {
    context.log.warn({ err: error, asset: row.id }, 'a film went out without its label in it');
  });
}

const onlyXmp = <T>(tags: Readonly<Record<string, T>>): Readonly<Record<string, T>> =>
  Object.fromEntries(Object.entries(tags).filter(([name]) => name.startsWith('XMP')));

/** Where a cut lies with its label written in: the metadata of the original is not carried over, so no place or serial number is. */
export async function cutGoingOut(context: Context, whole: WholePage, cut: Cut): Promise<string> {
  const source = whole.assets.find((asset) => asset.id === cut.assetId);
  const piece = whole.pieces.get(cut.assetId);
  if (!source || !piece) throw new Error(`The page names a piece that was not read: ${cut.assetId}`);
  const placement = placementFor(whole, cut);
  const credit = placement ? creditText(creditHere(whole.rules, placement, piece)) : '';
  const tags = metadataOfLabel(labelIn(piece.label, whole.rules.language), credit);
  const { recipe, size, format, quality } = cut;
  const key = cutKey(source.sha256, recipeKey(recipe), size.width, format, quality);
  return taggedFile(context, key, tags, () =>
    ensureCut(context, source, recipe, size.width, format, quality),
  );
}

/** The same as a file of one's own. */
export async function writeCut(context: Context, whole: WholePage, cut: Cut, path: string): Promise<void> {
  await copyFile(await cutGoingOut(context, whole, cut), path);
}
