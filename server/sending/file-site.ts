import { isDocumentOf, pageDocument } from '#core/deliver/page-document.ts';
import { goodStem } from '#core/naming/names.ts';
import { type FileToSend, type PageToSend, SendProblem, type Way } from './way.ts';

/** Where the files of a site lie. Paths are relative, of letters that need no care. Each is written whole or not at all. */
export interface FileStore {
  readonly put: (path: string, bytes: Buffer, type: string) => Promise<void>;
  /** Null for what is not there. */
  readonly read: (path: string) => Promise<Buffer | null>;
  /** What is not there is removed already. */
  readonly remove: (path: string) => Promise<void>;
  readonly close?: () => Promise<void>;
}

interface FileSite {
  /** Where readers find what lies in the store. */
  readonly publicAddress: string;
  readonly language: string;
  /** What it is called in words. */
  readonly name: string;
}

const FILES = 'media';
const PAGES = 'pages';
/** Pages of the same title beside each other. */
const MOST_ALIKE = 200;

/** Sending to a site that is files in folders: pictures beside each other, each page a document that says which one it is. */
export function fileSite(store: FileStore, { publicAddress, language, name }: FileSite): Way {
  const base = new URL(publicAddress.endsWith('/') ? publicAddress : `${publicAddress}/`);
  const addressAt = (path: string) => new URL(path, base).href;
  const pathAt = (address: string): string => {
    if (!address.startsWith(base.href))
      throw new SendProblem(
        `${address} does not stand at ${base.href}, where ${name} lies now. Nothing was changed there.`,
      );
    return decodeURIComponent(address.slice(base.href.length));
  };
  /** Its own place, or the next one that is nobody's: what somebody else put there is never overwritten. */
  const placeFor = async ({ uid, title }: PageToSend): Promise<string> => {
    const stem = goodStem(title, 'page');
    for (let at = 1; at <= MOST_ALIKE; at += 1) {
      const path = `${PAGES}/${stem}${at === 1 ? '' : `-${at}`}.html`;
      const there = await store.read(path);
      if (there === null || isDocumentOf(there.toString('utf8'), uid)) return path;
    }
    throw new SendProblem(`There is no free name left for “${title}” at ${name}. Give it another title.`);
  };
  return {
    async putFile({ name: fileName, type, bytes }: FileToSend) {
      const path = `${FILES}/${fileName}`;
      await store.put(path, bytes, type);
      return addressAt(path);
    },
    async putPage(page, standsAt) {
      const path = standsAt === null ? await placeFor(page) : pathAt(standsAt);
      const document = Buffer.from(pageDocument(page, language), 'utf8');
      await store.put(path, document, 'text/html; charset=utf-8');
      return addressAt(path);
    },
    // One that was handed over without an answer lies in its own place, where it is put once more.
    find: () => Promise.resolve(null),
    takeDown: (standsAt) => store.remove(pathAt(standsAt)),
    close: async () => store.close?.(),
  };
}
