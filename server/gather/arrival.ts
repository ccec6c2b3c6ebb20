import { randomUUID } from 'node:crypto';
import { mkdir, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { DOCUMENT_FORMATS, type DocumentFacts } from '#core/document/formats.ts';
import { FILM_FORMATS, type FilmFacts } from '#core/film/facts.ts';
import { draftFromMetadata, type MetadataDraft, withSidecar } from '#core/formats/metadata.ts';
import { ORIGINAL_FORMATS } from '#core/media/formats.ts';
import type { LabelPatch } from '#core/rights/label.ts';
import type { Context } from '../context.ts';
import type { ReadDocument } from '../documents/documents.ts';
import type { SavedEmbed } from '../embeds/saved.ts';
import { type ReadFilm, readFilm } from '../films/films.ts';
import type { FirstLook } from '../imaging/first-look.ts';
import type { OriginalFacts } from '../imaging/read-original.ts';
import { sha256Of } from '../storage/sha256.ts';
import type { Incoming } from './incoming.ts';
import { readSidecar } from './sidecar.ts';

/** What came in, looked at to its end: what all kinds have, and what its kind has of its own. */
export type Arrival = {
  /** By what the very same thing is found again. */
  readonly identity: string;
  readonly extension: string;
  /** The picture that it is, or that shows it. */
  readonly shown: { readonly facts: OriginalFacts; readonly look: FirstLook };
  /** Its files as they lie now, by their hashes. */
  readonly files: readonly { readonly sha256: string; readonly path: string }[];
  readonly draft: MetadataDraft;
  /** What its kind says of its label by itself. */
  readonly settled: LabelPatch;
} & (
  | { readonly kind: 'picture' }
  | { readonly kind: 'embed'; readonly embed: SavedEmbed }
  | { readonly kind: 'document'; readonly document: DocumentFacts }
  | { readonly kind: 'film'; readonly film: FilmFacts }
);

/** What is coming in, known by its identity before the long look at it, which `arrive` takes. */
export interface Coming {
  readonly identity: string;
  readonly arrive: <T>(use: (arrival: Arrival) => Promise<T>) => Promise<T>;
}

/** What a file that came in is, by what its bytes say. Throws an HttpProblem with a sentence for what cannot be taken. */
export async function comingOf(context: Context, incoming: Incoming): Promise<Coming> {
  if (incoming.embed) return embedComing(context, incoming, incoming.embed);
  const film = await readFilm(context.config, incoming);
  if (film) return filmComing(context, incoming, film);
  const document = await context.documents.read(incoming);
  return document ? documentComing(context, incoming, document) : pictureComing(context, incoming);
}

async function pictureComing(context: Context, { path, name, sidecar }: Incoming): Promise<Coming> {
  const facts = await context.pictures.facts({ path, name });
  return {
    identity: facts.sha256,
    arrive: async (use) => {
      const [draft, look] = await Promise.all([
        draftOf(context, path, sidecar),
        context.pictures.firstLook({ path, name, facts }),
      ]);
      return use({
        kind: 'picture',
        identity: facts.sha256,
        extension: ORIGINAL_FORMATS[facts.format].extension,
        shown: { facts, look },
        files: [{ sha256: facts.sha256, path }],
        draft,
        settled: {},
      });
    },
  };
}

/** An embed is known by what it embeds; its file is only the poster that shows it. */
function embedComing(
  context: Context,
  { path, name }: Incoming,
  { saved, key }: NonNullable<Incoming['embed']>,
): Coming {
  return {
    identity: key,
    arrive: async (use) => {
      const shown = await lookedAt(context, path, name);
      return use({
        kind: 'embed',
        embed: saved,
        identity: key,
        extension: ORIGINAL_FORMATS[shown.facts.format].extension,
        shown,
        files: [{ sha256: shown.facts.sha256, path }],
        draft: SILENT,
        // The poster shows nothing that the frame's own title does not say; one drawn here copies nothing.
        settled: {
          alt: { kind: 'decorative' },
          ...(saved.poster === 'drawn' ? { licence: 'not-copied' } : {}),
        },
      });
    },
  };
}

/** A film is known by its file, and shown by a still; a recording by how loud it is over its length. */
async function filmComing(context: Context, { path, sidecar }: Incoming, film: ReadFilm): Promise<Coming> {
  const sha256 = await sha256Of(path);
  const { facts, title, creator } = film;
  return {
    identity: sha256,
    arrive: async (use) =>
      withPicture(context, await film.still(), 'The still', async ({ shown, still }) =>
        use({
          kind: 'film',
          film: facts,
          identity: sha256,
          extension: FILM_FORMATS[facts.format].extension,
          shown,
          files: [
            { sha256, path },
            { sha256: shown.facts.sha256, path: still },
          ],
          draft: withTitle(await draftOf(context, path, sidecar), title, creator),
          // What shows it says nothing that its title and captions do not.
          settled: { alt: { kind: 'decorative' } },
        }),
      ),
  };
}

/** A document is known by its file, and shown by its first page. */
async function documentComing(
  context: Context,
  { path, sidecar }: Incoming,
  document: ReadDocument,
): Promise<Coming> {
  const sha256 = await sha256Of(path);
  const { format, bytes, pages, title, author } = document;
  return {
    identity: sha256,
    arrive: async (use) =>
      withPicture(context, await document.firstPage(), 'The first page', async ({ shown, still }) =>
        use({
          kind: 'document',
          document: { format, bytes, pages },
          identity: sha256,
          extension: DOCUMENT_FORMATS[format].extension,
          shown,
          files: [
            { sha256, path },
            { sha256: shown.facts.sha256, path: still },
          ],
          draft: withTitle(await draftOf(context, path, sidecar), title, author),
          // Its first page says nothing that the link to it does not.
          settled: { alt: { kind: 'decorative' } },
        }),
      ),
  };
}

interface MadePicture {
  readonly shown: Arrival['shown'];
  /** Where it lies. */
  readonly still: string;
}

/** Lays down a picture that was made of what came in, for as long as it is used. */
async function withPicture<T>(
  context: Context,
  bytes: Uint8Array,
  name: string,
  use: (made: MadePicture) => Promise<T>,
): Promise<T> {
  const folder = join(context.config.dataFolder, 'uploads');
  await mkdir(folder, { recursive: true });
  const still = join(folder, `page-${randomUUID()}`);
  try {
    await writeFile(still, bytes);
    return await use({ shown: await lookedAt(context, still, name), still });
  } finally {
    await rm(still, { force: true });
  }
}

async function lookedAt(context: Context, path: string, name: string): Promise<Arrival['shown']> {
  const facts = await context.pictures.facts({ path, name });
  return { facts, look: await context.pictures.firstLook({ path, name, facts }) };
}

/** What documents call themselves, where their metadata as a file does not say it better. */
function withTitle(draft: MetadataDraft, title: string, author: string): MetadataDraft {
  return {
    ...draft,
    patch: { ...(title ? { title } : {}), ...(author ? { creator: author } : {}), ...draft.patch },
  };
}

const SILENT: MetadataDraft = {
  patch: {},
  drafted: [],
  hasPlaceOfTaking: false,
  saysOtherColours: false,
  said: [],
};

/** The draft of a file whose metadata could not be read. */
export const UNREAD: MetadataDraft = { ...SILENT };

/** What a file says of itself, and the sidecar beside it. One that cannot be read is refused with the file: somebody wrote it. */
async function draftOf(context: Context, path: string, sidecar: string | undefined): Promise<MetadataDraft> {
  const file = await fileDraft(context, path);
  return sidecar === undefined ? file : withSidecar(file, await readSidecar(context, sidecar));
}

async function fileDraft(context: Context, path: string): Promise<MetadataDraft> {
  try {
    return draftFromMetadata(await context.metadata.read(path));
  } catch (error) {
    // A file that is sound but whose metadata is not is still a good piece: it only says nothing.
    context.log.warn({ err: error }, 'metadata could not be read');
    return UNREAD;
  }
}
