/** The place where files are kept does not answer, or has a fault of its own. What was to be stored is not lost by it. */
export class StorageGone extends Error {
  constructor(cause: unknown) {
    super('The store of files does not answer.', { cause });
    this.name = 'StorageGone';
  }
}

export function isStorageGone(error: unknown): boolean {
  for (let one = error; one instanceof Error; one = one.cause) if (one instanceof StorageGone) return true;
  return false;
}

/** A file that was written to while it was stored: its bytes are not the ones that were looked at. Nothing was stored. */
export class FileChanged extends Error {
  constructor(key: string) {
    super(`What came to be stored as ${key} has other bytes than were looked at.`);
    this.name = 'FileChanged';
  }
}
