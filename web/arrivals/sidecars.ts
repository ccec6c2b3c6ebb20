import { SidecarTakenSchema } from '#api/gather.ts';
import { requestJson } from '../api/client.ts';
import { putPieces } from '../pieces/pieces.ts';
import type { FoundFile } from './dropped.ts';

/** A file with the sidecar (XMP) that lay beside it. */
export interface WithSidecar extends FoundFile {
  readonly sidecar?: File;
}

const isSidecar = ({ name }: { readonly name: string }): boolean => /\.xmp$/i.test(name);

/**
 * Files with the sidecars that are called after them in the same folder, "heron.xmp" or "heron.jpg.xmp"; and the sidecars of
 * files that did not come along.
 */
export function pairSidecars(files: readonly FoundFile[]): {
  readonly pairs: readonly WithSidecar[];
  readonly alone: readonly FoundFile[];
} {
  const sidecars = files.filter(({ file }) => isSidecar(file));
  const pairs = files.filter(({ file }) => !isSidecar(file));
  const paired = new Set<FoundFile>();
  const byName = new Map(sidecars.map((one) => [nameIn(one, one.file.name), one]));
  const beside = (one: FoundFile): FoundFile | undefined =>
    byName.get(nameIn(one, `${one.file.name}.xmp`)) ??
    byName.get(nameIn(one, `${one.file.name.replace(/\.[^.]*$/, '')}.xmp`));
  return {
    pairs: pairs.map((one) => {
      const sidecar = beside(one);
      if (!sidecar) return one;
      paired.add(sidecar);
      return { ...one, sidecar: sidecar.file };
    }),
    alone: sidecars.filter((one) => !paired.has(one)),
  };
}

const nameIn = ({ folder }: FoundFile, name: string): string => `${folder}/${name.toLowerCase()}`;

/** Puts what a sidecar says onto the label of the piece that it is called after. Answers what became of it, in a sentence. */
export async function takeSidecar(file: string, sidecar: File) {
  const body = { file, text: await sidecar.text() };
  const { asset, sentence } = await requestJson('post /sidecars', SidecarTakenSchema, { body });
  putPieces([asset]);
  return { assetId: asset.id, sentence };
}
