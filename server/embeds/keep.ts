import { createHash, randomUUID } from 'node:crypto';
import { mkdir, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { and, eq, isNull } from 'drizzle-orm';
import sharp from 'sharp';
import type { Look } from '#api/embeds.ts';
import type { Person } from '#api/people.ts';
import { entryById, entryOf, type Hosts } from '#core/embed/host.ts';
import { type Embed, identityOf, sayKind } from '#core/embed/model.ts';
import { maybeStatement, type Statement } from '#core/gather/statement.ts';
import { siteOrigin } from '#core/page/embed-here.ts';
import type { Context } from '../context.ts';
import { held } from '../db/schema.ts';
import { takeIn } from '../gather/take-in.ts';
import { OutboundProblem } from '../outbound/problem.ts';
import { HttpProblem } from '../problem.ts';
import { readTargets } from '../rules/store.ts';
import type { AssetRow } from '../shelf/present.ts';
import { readHosts } from './hosts.ts';
import { lookAt } from './look.ts';
import type { SavedEmbed } from './saved.ts';

export interface KeptEmbed {
  readonly row: AssetRow;
  /** False when the very same thing was held already. */
  readonly isNew: boolean;
}

const POSTER_LIMITS = { bytes: 40_000_000, millis: 15_000 };

/** By what the same thing is found again, whatever its settings. */
export function embedKey(embed: Pick<Embed, 'address' | 'page' | 'host'>): string {
  return createHash('sha256').update(identityOf(embed)).digest('hex');
}

/**
 * Puts an embed on the shelf as a piece of its own: its host is asked once more, its poster is fetched and taken in as
 * any picture is, and its label is drafted from what the host says. The same thing is never held twice.
 */
export async function keepEmbed(
  context: Context,
  embed: Embed,
  { folder, person, now }: { readonly folder: string; readonly person: Person; readonly now: Date },
  signal: AbortSignal,
): Promise<KeptEmbed> {
  const key = embedKey(embed);
  const known = await heldBy(context, key);
  if (known) return { row: known, isNew: false };
  const [hosts, targets] = await Promise.all([readHosts(context), readTargets(context)]);
  if ((entryOf(new URL(embed.address), hosts)?.id ?? null) !== embed.host)
    throw new HttpProblem(
      422,
      'This embed names another host than its address does. Read it anew, and keep that.',
    );
  const look = await lookAt(context, { embed, hosts, targets }, signal);
  const { path, poster } = await posterFile(context, look.embed, signal);
  const saved: SavedEmbed = {
    embed: look.embed,
    framing: framingByOrigin(look, targets),
    poster,
    askedAt: now.toISOString(),
  };
  try {
    const taken = await takeIn(
      context,
      {
        path,
        name: `${look.embed.facts.title || sayKind(embed.kind)}.jpg`,
        personId: person.id,
        folder,
        pageId: null,
        origin: {
          way: 'address',
          sourceId: null,
          sourceKey: null,
          stamp: null,
          address: embed.address,
          pageAddress: embed.page,
          said: said(look.embed, hosts),
          decidedLicence: null,
        },
        embed: { saved, key },
      },
      now,
    );
    return taken;
  } finally {
    await rm(path, { force: true });
  }
}

async function heldBy(context: Context, key: string): Promise<AssetRow | undefined> {
  const [row] = await context.db
    .select()
    .from(held)
    .where(and(eq(held.identity, key), isNull(held.deletedAt)));
  return row;
}

export function framingByOrigin(
  { framing }: Pick<Look, 'framing'>,
  targets: Awaited<ReturnType<typeof readTargets>>,
): SavedEmbed['framing'] {
  return Object.fromEntries(
    framing.flatMap((one) => {
      const target = targets.find(({ id }) => id === one.target);
      return target ? [[siteOrigin(target.rules), one.framing] as const] : [];
    }),
  );
}

function said({ facts, page, host, caption }: Embed, hosts: Hosts): readonly Statement[] {
  const name = entryById(host, hosts)?.name ?? new URL(page).host;
  return [
    maybeStatement('page', 'title', facts.title),
    maybeStatement('page', 'maker', facts.author),
    maybeStatement('page', 'source', name),
    maybeStatement('page', 'caption', caption),
  ].flatMap((statement) => statement ?? []);
}

/** The poster as a file, to be taken in with it. */
async function posterFile(
  context: Context,
  embed: Embed,
  signal: AbortSignal,
): Promise<{ readonly path: string; readonly poster: SavedEmbed['poster'] }> {
  const folder = join(context.config.dataFolder, 'uploads');
  await mkdir(folder, { recursive: true });
  const path = join(folder, `poster-${randomUUID()}`);
  const fetched = await fetchedPoster(context, embed, signal);
  await writeFile(path, fetched ?? (await plainPoster(embed)));
  return { path, poster: fetched ? 'host' : 'drawn' };
}

/** What the host shows of it, or null where it cannot be had or is no picture. */
async function fetchedPoster(
  context: Context,
  { facts, page }: Embed,
  signal: AbortSignal,
): Promise<Buffer | null> {
  if (facts.thumbnail === '') return null;
  try {
    const { bytes } = await context.outbound.read(facts.thumbnail, {
      limits: POSTER_LIMITS,
      accept: 'image/*',
      referrer: page,
      signal,
    });
    return Buffer.from(await context.pictures.poster(bytes, signal));
  } catch (error) {
    if (!(error instanceof OutboundProblem)) context.log.warn({ err: error }, 'a poster could not be read');
    return null;
  }
}

const PLAIN_WIDTH = 1440;

/** A dark ground with a frame in it, for what shows no picture of itself; its words stand over it on the page. */
function plainPoster({ shape }: Embed): Promise<Buffer> {
  const height =
    shape.kind === 'ratio'
      ? Math.round((PLAIN_WIDTH * shape.down) / shape.across)
      : Math.min(1200, shape.px * 2);
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${PLAIN_WIDTH}" height="${height}"><rect width="100%" height="100%" fill="#2b4048"/><rect x="${PLAIN_WIDTH * 0.36}" y="${height * 0.34}" width="${PLAIN_WIDTH * 0.28}" height="${height * 0.3}" fill="none" stroke="#c9d6d9" stroke-width="6"/><path d="M${PLAIN_WIDTH * 0.36} ${height * 0.42}h${PLAIN_WIDTH * 0.28}" stroke="#c9d6d9" stroke-width="6"/></svg>`;
  return sharp(Buffer.from(svg)).jpeg({ quality: 90 }).toBuffer();
}
