import * as v from 'valibot';
import type { FoundPicture } from '#api/gather.ts';
import { maybeStatement, statements } from '#core/gather/statement.ts';
import { addressOr, readJson } from './json.ts';
import type { FoundAlbum, Source, SourceTools } from './source.ts';

const text = v.pipe(v.string(), v.maxLength(2000));
const id = v.pipe(v.string(), v.regex(/^[A-Za-z0-9_-]{1,80}$/));
const size = v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(200_000));
const AlbumsSchema = v.object({ albums: v.pipe(v.array(v.object({ id, name: text })), v.maxLength(200)) });
const FileSchema = v.object({
  id,
  name: text,
  width: size,
  height: size,
  revision: text,
  download: text,
  thumb: text,
});
const AlbumSchema = v.object({ id, name: text, files: v.array(FileSchema) });

/** Albums on a cloud drive. A file's revision tells whether it has to be fetched again. */
export const loftdrive: Source = {
  id: 'loftdrive',
  name: 'Loftdrive',
  about: 'our own albums',
  kind: 'drive',
  standIn: 'loftdrive',
  async search(question, _cursor, tools) {
    const wanted = question.words.toLowerCase().split(/\s+/).filter(Boolean);
    const files = (await albumsOf(tools)).flatMap((album) =>
      album.files.filter(({ fileName }) =>
        wanted.every((word) => `${album.name} ${fileName}`.toLowerCase().includes(word)),
      ),
    );
    return { pictures: files, count: files.length, cursor: null };
  },
  albums: albumsOf,
};

async function albumsOf(tools: SourceTools): Promise<readonly FoundAlbum[]> {
  const { albums } = await readJson(AlbumsSchema, '/api/albums', tools);
  return Promise.all(
    albums.map(async (album) => {
      const { name, files } = await readJson(AlbumSchema, `/api/albums/${album.id}`, tools);
      return { id: album.id, name, files: files.map(found) };
    }),
  );
}

function found(file: v.InferOutput<typeof FileSchema>): FoundPicture {
  return {
    source: 'loftdrive',
    key: file.id,
    stamp: file.revision.slice(0, 200),
    fileName: file.name.slice(0, 300),
    address: addressOr(file.download),
    preview: addressOr(file.thumb),
    pageAddress: '',
    width: file.width,
    height: file.height,
    statements: [...statements(maybeStatement('drive', 'source', 'Loftdrive'))],
  };
}
