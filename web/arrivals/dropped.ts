/** A file with the folder it stood in, below what was dropped or chosen; empty for a file by itself. */
export interface FoundFile {
  readonly file: File;
  readonly folder: string;
}

/** How deep folders are read, so that a link that leads round in a circle comes to an end. */
const DEPTH_LIMIT = 12;
const PICTURE = /^image\//;
/** Of documents those that are made to be read, since notes and lists lie about in any folder; and what lies beside pictures. */
const TAKEN_NAME = /\.(jpe?g|png|webp|avif|gif|tiff?|svg|pdf|docx|xlsx|pptx|od[tsp]|xmp)$/i;

/** The files of a drop, whole folders with all that is in them included. Has to be called while the drop is handled. */
export function filesOfDrop(data: DataTransfer): Promise<readonly FoundFile[]> {
  const entries = [...data.items].flatMap((item) => item.webkitGetAsEntry?.() ?? []);
  if (!entries.some((entry) => entry.isDirectory))
    return Promise.resolve([...data.files].map((file) => ({ file, folder: '' })));
  return Promise.all(entries.map((entry) => filesOf(entry, '', 0))).then((all) => all.flat());
}

async function filesOf(entry: FileSystemEntry, folder: string, depth: number): Promise<readonly FoundFile[]> {
  if (isFile(entry)) {
    const file = await new Promise<File>((resolve, reject) => entry.file(resolve, reject));
    // In a folder there may be anything; by itself a file is taken up on, and refused with a reason.
    return folder === '' || isTaken(file) ? [{ file, folder }] : [];
  }
  if (!isDirectory(entry) || depth >= DEPTH_LIMIT) return [];
  const inside = folder === '' ? entry.name : `${folder}/${entry.name}`;
  const children = await childrenOf(entry);
  return (await Promise.all(children.map((child) => filesOf(child, inside, depth + 1)))).flat();
}

/** A directory gives its entries in batches until an empty one. */
async function childrenOf(directory: FileSystemDirectoryEntry): Promise<readonly FileSystemEntry[]> {
  const reader = directory.createReader();
  const all: FileSystemEntry[] = [];
  for (;;) {
    const batch = await new Promise<FileSystemEntry[]>((resolve, reject) =>
      reader.readEntries(resolve, reject),
    );
    if (batch.length === 0) return all;
    all.push(...batch);
  }
}

/** The files of a chosen folder (`webkitdirectory`), each with the folder it stood in. */
export function filesOfFolder(files: readonly File[]): readonly FoundFile[] {
  return files.filter(isTaken).map((file) => ({
    file,
    folder: file.webkitRelativePath.split('/').slice(0, -1).join('/'),
  }));
}

function isTaken(file: File): boolean {
  return PICTURE.test(file.type) || TAKEN_NAME.test(file.name);
}

function isFile(entry: FileSystemEntry): entry is FileSystemFileEntry {
  return entry.isFile;
}

function isDirectory(entry: FileSystemEntry): entry is FileSystemDirectoryEntry {
  return entry.isDirectory;
}
