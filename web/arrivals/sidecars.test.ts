import { describe, expect, it } from 'vitest';
import type { FoundFile } from './dropped.ts';
import { pairSidecars } from './sidecars.ts';

const found = (name: string, folder = ''): FoundFile => ({ file: new File(['x'], name), folder });
const paired = (...files: readonly FoundFile[]) => {
  const { pairs, alone } = pairSidecars(files);
  return [
    pairs.map(({ file, sidecar }) => [file.name, sidecar?.name ?? null]),
    alone.map(({ file }) => file.name),
  ];
};

describe('sidecars', () => {
  it('go with the file that they are called after, by its stem or by its whole name', () => {
    expect(paired(found('heron.jpg'), found('heron.xmp'), found('REED.PNG.XMP'), found('reed.png'))).toEqual([
      [
        ['heron.jpg', 'heron.xmp'],
        ['reed.png', 'REED.PNG.XMP'],
      ],
      [],
    ]);
  });

  it('go with the one of the whole name where two files share a stem', () => {
    expect(paired(found('a.jpg'), found('a.tif'), found('a.tif.xmp'))).toEqual([
      [
        ['a.jpg', null],
        ['a.tif', 'a.tif.xmp'],
      ],
      [],
    ]);
    // A camera's two files of one picture share what is said of it.
    expect(paired(found('a.jpg'), found('a.tif'), found('a.xmp'))[0]).toEqual([
      ['a.jpg', 'a.xmp'],
      ['a.tif', 'a.xmp'],
    ]);
  });

  it('of another folder, and of files that did not come, are by themselves', () => {
    expect(paired(found('heron.jpg', 'one'), found('heron.xmp', 'two'), found('gone.xmp'))).toEqual([
      [['heron.jpg', null]],
      ['heron.xmp', 'gone.xmp'],
    ]);
  });
});
