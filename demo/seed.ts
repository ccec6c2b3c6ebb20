import { copyFile, mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import { NOT_SENT } from '#core/deliver/sending.ts';
import { madeUpHosts } from '#core/embed/made-up-hosts.ts';
import { readPasted } from '#core/embed/reading.ts';
import { folderPath } from '#core/naming/folders.ts';
import { withAncestors } from '#core/naming/paths.ts';
import { nameByPattern } from '#core/naming/pattern.ts';
import { siteOrigin } from '#core/page/embed-here.ts';
import type { HouseRules } from '#core/page/target.ts';
import { withBlocks } from '#core/page/walk.ts';
import { type Label, type LabelPatch, withPatch } from '#core/rights/label.ts';
import { dayIn, NO_TERMS } from '#core/rights/terms.ts';
import type { Context } from '../server/context.ts';
import type { Queries } from '../server/db/connection.ts';
import {
  assets,
  embedHosts,
  folders,
  houseLicences,
  pages,
  pageVersions,
  people,
  settings,
  targets,
} from '../server/db/schema.ts';
import { HANGING, sayHanging } from '../server/desk/hanging.ts';
import { embedKey } from '../server/embeds/keep.ts';
import type { SavedEmbed } from '../server/embeds/saved.ts';
import { FROM_OWN_MACHINE } from '../server/gather/incoming.ts';
import { takeIn } from '../server/gather/take-in.ts';
import { indexPlacements } from '../server/pages/store.ts';
import { presentPerson } from '../server/people/guard.ts';
import { hashPassword } from '../server/people/passwords.ts';
import { credentialSince, keepCredential } from '../server/sending/credentials.ts';
import { derivedColumns } from '../server/shelf/derived.ts';
import { freeStemLike, nameInTurn } from '../server/shelf/names.ts';
import { StartProblem } from '../server/start-problem.ts';
import { filmPiece, sayFilm } from './film.ts';
import { DEMO_PAGES, DEMO_VERSIONS, type DemoPage, pageDoc } from './pages.ts';
import { paintPiece } from './paint.ts';
import { DEMO_PIECES, type DemoPerson, type DemoPiece, TOWN_ARCHIVE } from './pieces.ts';
import { seedReport } from './report.ts';
import { BULLETIN, RESERVE_SITE } from './rules.ts';

const DEMO_PASSWORD = 'saltmere-2026';

const PEOPLE: Readonly<Record<DemoPerson, { name: string; role: string }>> = {
  mara: { name: 'Mara Oduya', role: 'editor' },
  piet: { name: 'Piet Hallam', role: 'rights-keeper' },
  sunniva: { name: 'Sunniva Brandt', role: 'site-owner' },
  joss: { name: 'Joss Imrie', role: 'contributor' },
};

/** What each role may spend a month, in the smallest unit. */
const SPENDING = { editor: 0, 'rights-keeper': 50_000, 'site-owner': null, contributor: 0 };

const AT_ONCE = 2;
const DAY_MILLIS = 24 * 60 * 60 * 1000;
/** Pieces came in over the last weeks, one after the other. */
const APART_MILLIS = 7 * 60 * 60 * 1000;

/** Makes the whole Saltmere demo on an empty database. */
export async function seedDemo(context: Context, say: (sentence: string) => void): Promise<void> {
  await beginDemo(context);
  await hangDemo(context, say);
}

/** What people need to come in: themselves, the targets, the hosts outside. Done once, and in a moment. */
export async function beginDemo(context: Context): Promise<void> {
  if (await isWhole(context)) return;
  await markAsDemo(context);
  await seedPeople(context);
  await context.db
    .insert(targets)
    .ignore()
    .values([
      { id: 'reserve', rules: sentByMicropub(context, RESERVE_SITE, 'reserve') },
      { id: 'bulletin', rules: sentByMicropub(context, BULLETIN, 'bulletin') },
    ]);
  await seedTokens(context);
  await seedHosts(context);
  await context.db
    .insert(houseLicences)
    .ignore()
    .values({ ...TOWN_ARCHIVE, version: 1 });
  await context.db
    .insert(settings)
    .ignore()
    .values({ name: 'spending', value: JSON.stringify(SPENDING) });
}

/**
 * Paints and hangs the pieces of the demo, each page as soon as its pieces are there. Done once; what was broken off is
 * taken up where it stopped. `PLACARD_DEMO_SHARE` paints smaller originals.
 */
export async function hangDemo(context: Context, say: (sentence: string) => void): Promise<void> {
  if (await isWhole(context)) return;
  say('Painting and hanging the Saltmere demo. This happens once.');
  const now = new Date();
  await seedPieces(context, now, say);
  if (context.ending.aborted) return;
  await seedReport(context, now);
  await context.db.insert(settings).ignore().values({ name: 'demo', value: now.toISOString() });
  await context.db.delete(settings).where(eq(settings.name, HANGING));
}

async function isWhole({ db }: Context): Promise<boolean> {
  const [done] = await db.select().from(settings).where(eq(settings.name, 'demo'));
  return done !== undefined;
}

/** A house in which people work is no place for a demo, whose passwords everybody knows. */
class HouseHasBegun extends StartProblem {
  constructor() {
    super(
      'This database holds a house that has begun, and the demo hangs only in an empty one. Nothing was changed. Start with PLACARD_DEMO=0 to work in this house, or name another database for the demo.',
    );
    this.name = 'HouseHasBegun';
  }
}

/** Makes an empty database a demo's for good; one that is a demo's already stays so. Throws where somebody works here. */
async function markAsDemo({ db }: Context): Promise<void> {
  await db.transaction(async (tx) => {
    const [mark] = await tx.select().from(settings).where(eq(settings.name, 'demo-house')).for('update');
    if (mark) return;
    for (const table of [people, targets, pages, assets]) {
      const [row] = await tx.select({ id: table.id }).from(table).limit(1).for('update');
      if (row) throw new HouseHasBegun();
    }
    await tx.insert(settings).values({ name: 'demo-house', value: new Date().toISOString() });
  });
}

/** What opens the sites of the demo to the house: the stand-ins know these and no others. */
const TOKENS = { reserve: 'saltmere-reserve-site', bulletin: 'saltmere-bulletin' };

function sentByMicropub(context: Context, rules: HouseRules, host: string): HouseRules {
  const origin = originOf(context, host);
  const address = `${origin}/micropub`;
  return {
    ...rules,
    sending: {
      ...NOT_SENT,
      by: 'micropub',
      address,
      listing: `${origin}/`,
      captions: 'figcaption',
      sides: 'figure',
    },
  };
}

async function seedTokens(context: Context): Promise<void> {
  const [owner] = await context.db.select().from(people).where(eq(people.id, 'sunniva'));
  if (!owner) return;
  for (const [targetId, token] of Object.entries(TOKENS))
    if ((await credentialSince(context, targetId)) === null)
      await keepCredential(context, targetId, token, presentPerson(owner), new Date());
}

function originOf(context: Context, host: string): string {
  const [port = 4401] = context.config.standInPorts;
  return `http://${host}.localhost:${port}`;
}

const demoHosts = (context: Context) => madeUpHosts((name) => originOf(context, name));

/** The entries of the hosts outside, where the stand-ins are. */
async function seedHosts(context: Context): Promise<void> {
  const entries = [...demoHosts(context)];
  await context.db.insert(embedHosts).ignore().values({ id: 'house', entries, decisions: [] });
}

async function seedPeople(context: Context): Promise<void> {
  const passwordHash = await hashPassword(DEMO_PASSWORD);
  const rows = Object.entries(PEOPLE).map(([id, { name, role }]) => ({
    id,
    name,
    role,
    email: `${id}@saltmere.example`,
    passwordHash,
    isDemo: true,
  }));
  await context.db.insert(people).ignore().values(rows);
}

async function seedPieces(context: Context, now: Date, say: (sentence: string) => void): Promise<void> {
  const share = Number(process.env.PLACARD_DEMO_SHARE ?? '1');
  const paintings = process.env.PLACARD_PAINTINGS ?? join(context.config.dataFolder, 'paintings');
  const ids = new Map<string, string>();
  const waiting = DEMO_PIECES.map((piece, at) => ({ piece, at })).sort(
    (one, other) => turnOf(one.piece.key) - turnOf(other.piece.key),
  );
  const pagesToCome = new Set(DEMO_PAGES);
  let hung = 0;
  const hangNext = async (): Promise<void> => {
    for (let next = waiting.shift(); next && !context.ending.aborted; next = waiting.shift()) {
      const painting = await paintPiece(next.piece, paintings, share, context.metadata);
      const { film } = next.piece;
      const path = film ? await filmPiece({ ...next.piece, film }, painting, share) : painting;
      const cameIn = new Date(now.getTime() - (DEMO_PIECES.length - next.at) * APART_MILLIS);
      ids.set(next.piece.key, await hang(context, next.piece, path, cameIn));
      hung += 1;
      for (const page of pagesToCome)
        if (keysOf(page).every((key) => ids.has(key))) {
          pagesToCome.delete(page);
          await seedPage(context, page, ids, now);
        }
      await sayHanging(context.db, { done: hung, of: DEMO_PIECES.length });
      if (hung % 10 === 0) say(`${hung} of ${DEMO_PIECES.length} pieces hang.`);
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, hangNext));
}

/** All pieces that a page needs, on its tray and its sheet. */
const keysOf = (page: DemoPage): readonly string[] => [
  ...page.tray,
  ...page.blocks.flatMap((block) => (block.type === 'piece' ? [block.key] : [])),
];

/** The pieces of the first page come first, then those of the next: whoever looks on has something to work with. */
const TURNS = new Map([...new Set(DEMO_PAGES.flatMap(keysOf))].map((key, at) => [key, at]));
const turnOf = (key: string) => TURNS.get(key) ?? TURNS.size;

/** Takes a painting in as any file is, then says of it what people have said. */
async function hang(context: Context, piece: DemoPiece, path: string, now: Date): Promise<string> {
  const copy = join(context.config.dataFolder, 'uploads', `demo-${piece.key}`);
  await mkdir(join(context.config.dataFolder, 'uploads'), { recursive: true });
  await copyFile(path, copy);
  const folder = folderPath(piece.folder);
  const { row } = await takeIn(
    context,
    {
      path: copy,
      name: piece.film ? piece.file.replace(/\.\w+$/, '.mp4') : piece.file,
      personId: piece.by,
      folder,
      pageId: null,
      origin: FROM_OWN_MACHINE,
      ...(piece.embed ? { embed: embedOf(context, piece.embed, now) } : {}),
    },
    now,
  );
  await rm(copy, { force: true });
  const label = withPatch(row.label, { ...piece.said, ...termsOf(piece, now) });
  const said = Object.keys(piece.said ?? {});
  const drafted = row.drafted.filter((field) => !said.includes(field));
  await context.db.transaction(async (tx) => {
    await nameInTurn(tx);
    const stem = await stemOf(tx, piece, row.stem, label);
    await tx
      .update(assets)
      .set({
        label,
        stem,
        drafted,
        ...derivedColumns(label, stem, piece.file, drafted),
      })
      .where(eq(assets.id, row.id));
  });
  if (piece.film)
    await sayFilm(context, { by: piece.by, film: piece.film }, { id: row.id, title: label.title }, now);
  for (const above of withAncestors(folder))
    await context.db.insert(folders).ignore().values({ path: above });
  return row.id;
}

function termsOf({ agreed }: DemoPiece, now: Date): LabelPatch {
  if (!agreed) return {};
  const dayAt = (days: number) => dayIn('Europe/London', new Date(now.getTime() + days * DAY_MILLIS));
  const terms = {
    ...NO_TERMS,
    begins: dayAt(-agreed.begunDaysAgo),
    ends: dayAt(agreed.endsInDays),
    territory: ['GB'],
    uses: ['web' as const],
    agreed: agreed.words,
    consent: 'not-needed' as const,
    ...(agreed.isTakenOff
      ? { afterwards: { do: 'take-off' as const, by: PEOPLE.piet.name, personId: 'piet' } }
      : {}),
  };
  return { terms };
}

/** An embed as it would be kept from the address of the stand-in's page. */
function embedOf(
  context: Context,
  { host, path, facts, framing }: NonNullable<DemoPiece['embed']>,
  now: Date,
) {
  const hosts = { entries: demoHosts(context), decisions: [] };
  const [read] = readPasted(originOf(context, host) + path, hosts).embeds;
  if (!read) throw new Error(`The demo's ${host} has nothing at ${path}.`);
  const embed = { ...read.embed, facts: { ...read.embed.facts, ...facts } };
  const saved: SavedEmbed = {
    embed,
    framing: { [siteOrigin(RESERVE_SITE)]: framing },
    poster: 'host',
    askedAt: now.toISOString(),
  };
  return { saved, key: embedKey(embed) };
}

async function stemOf(
  db: Queries,
  piece: DemoPiece,
  now: string,
  label: Pick<Label, 'title' | 'place' | 'creator' | 'dateCreated'>,
): Promise<string> {
  const wished =
    piece.stem ??
    nameByPattern(RESERVE_SITE.namePattern, {
      title: label.title,
      place: label.place,
      maker: label.creator,
      taken: label.dateCreated,
      fileName: piece.file,
      kind: 'picture',
    });
  return wished === now ? now : freeStemLike(db, wished);
}

async function seedPage(
  context: Context,
  page: DemoPage,
  ids: ReadonlyMap<string, string>,
  now: Date,
): Promise<void> {
  const at = DEMO_PAGES.indexOf(page);
  const id = `demo-page-${at + 1}`;
  const doc = pageDoc(page, (key) => ids.get(key) ?? 'gone');
  const updatedAt = new Date(now.getTime() - at * 60 * 60 * 1000);
  const due =
    page.dueInDays === null
      ? null
      : new Date(now.getTime() + page.dueInDays * DAY_MILLIS).toISOString().slice(0, 10);
  await context.db.insert(pages).ignore().values({
    id,
    targetId: page.target,
    title: page.title,
    doc,
    due,
    createdAt: updatedAt,
    updatedAt,
    updatedBy: 'mara',
  });
  await indexPlacements(context.db, id, doc);
  for (const [place, version] of DEMO_VERSIONS.filter(({ of }) => of === page.title).entries())
    await context.db
      .insert(pageVersions)
      .ignore()
      .values({
        id: `${id}-version-${place + 1}`,
        pageId: id,
        name: version.name,
        doc: withBlocks(doc, version.change),
        createdAt: new Date(updatedAt.getTime() - version.daysBefore * DAY_MILLIS),
        createdBy: 'mara',
      });
}
