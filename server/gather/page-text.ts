import { decodeText, decodeWestern } from '#core/formats/decode-text.ts';

/** The text of a page, and in which encoding it was read. */
interface PageText {
  readonly text: string;
  readonly encoding: string;
  /** Whether that is what the page says. */
  readonly isSaid: boolean;
}

/**
 * The text of a page in the encoding that it says (HTML, 13.2.3). Where it says none that is known, or one that its bytes are not
 * in, it is UTF-8 if they are that, and else what most old pages are (HTML, 13.2.3.2, the default of most locales).
 */
export function pageText(bytes: Buffer, contentType: string | undefined): PageText {
  const said =
    /charset=["']?([\w-]+)/i.exec(contentType ?? '')?.[1] ??
    /<meta[^>]+charset=["']?([\w-]+)/i.exec(bytes.subarray(0, 1024).toString('latin1'))?.[1];
  const asSaid = said === undefined ? null : decodeText(bytes, said);
  if (asSaid !== null) return { text: asSaid, encoding: said ?? '', isSaid: true };
  const asUtf8 = decodeText(bytes, 'utf-8');
  if (asUtf8 !== null) return { text: asUtf8, encoding: 'utf-8', isSaid: said === undefined };
  return { text: decodeWestern(bytes), encoding: 'windows-1252', isSaid: false };
}

/** The text of a page, however it is encoded. */
export const textOf = (bytes: Buffer, contentType: string | undefined): string =>
  pageText(bytes, contentType).text;
