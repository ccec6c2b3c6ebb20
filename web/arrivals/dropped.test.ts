// @vitest-environment jsdom
import { describe, expect, it } from 'vitest';
import { filesOfDrop, filesOfFolder } from './dropped.ts';

const file = (name: string, type = '') => new File(['x'], name, { type });

/** What a browser hands over for a dropped file. */
function fileEntry(one: File): FileSystemFileEntry {
  const entry = {
    isFile: true,
    isDirectory: false,
    name: one.name,
    file: (done: (file: File) => void) => done(one),
  };
  return entry as unknown as FileSystemFileEntry;
}

/** And for a folder, which gives what it holds in batches of two. */
function folderEntry(name: string, children: readonly FileSystemEntry[]): FileSystemDirectoryEntry {
  const createReader = () => {
    let at = 0;
    return {
      readEntries: (done: (entries: FileSystemEntry[]) => void) => {
        done(children.slice(at, at + 2));
        at += 2;
      },
    };
  };
  return { isFile: false, isDirectory: true, name, createReader } as unknown as FileSystemDirectoryEntry;
}

function drop(entries: readonly FileSystemEntry[], files: readonly File[] = []): DataTransfer {
  const items = entries.map((entry) => ({ webkitGetAsEntry: () => entry }));
  return { items, files } as unknown as DataTransfer;
}

describe('files that are dropped', () => {
  it('by themselves are all taken up, whatever they are: each is refused with a reason later', async () => {
    const files = [file('IMG_0612.JPG'), file('notes.txt')];
    const found = await filesOfDrop(drop(files.map(fileEntry), files));
    expect(found.map(({ file: one, folder }) => [one.name, folder])).toEqual([
      ['IMG_0612.JPG', ''],
      ['notes.txt', ''],
    ]);
  });

  it('in folders keep those, to the last batch, and what is neither picture nor document stays out', async () => {
    const birds = folderEntry('birds', [
      fileEntry(file('a.jpg')),
      fileEntry(file('Thumbs.db')),
      fileEntry(file('tides.pdf')),
      fileEntry(file('notes.txt')),
      fileEntry(file('b.png')),
      folderEntry('bittern', [fileEntry(file('c.webp')), fileEntry(file('no-name', 'image/jpeg'))]),
      fileEntry(file('d.tif')),
    ]);
    const found = await filesOfDrop(drop([birds, fileEntry(file('loose.txt'))]));
    expect(found.map(({ file: one, folder }) => `${folder}/${one.name}`)).toEqual([
      'birds/a.jpg',
      'birds/tides.pdf',
      'birds/b.png',
      'birds/bittern/c.webp',
      'birds/bittern/no-name',
      'birds/d.tif',
      '/loose.txt',
    ]);
  });

  it('end where folders lead round in a circle', async () => {
    const children: FileSystemEntry[] = [fileEntry(file('a.jpg'))];
    const round = folderEntry('round', children);
    children.push(round);
    const found = await filesOfDrop(drop([round]));
    expect(found.length).toBeGreaterThan(1);
    expect(found.length).toBeLessThan(20);
  });
});

describe('a folder that is chosen', () => {
  it('gives its pictures, each with the folder that it stood in', () => {
    const within = (path: string) => {
      const one = file(path.split('/').at(-1) ?? '');
      Object.defineProperty(one, 'webkitRelativePath', { value: path });
      return one;
    };
    const found = filesOfFolder([
      within('spring/a.jpg'),
      within('spring/hides/b.heic.txt'),
      within('spring/hides/c.avif'),
    ]);
    expect(found.map(({ file: one, folder }) => `${folder} ${one.name}`)).toEqual([
      'spring a.jpg',
      'spring/hides c.avif',
    ]);
  });
});
