import { open, readFile, stat } from 'node:fs/promises';
import { unzipSync } from 'fflate';
import { fileTypeFromFile } from 'file-type';
import { type DocumentFormat, isDocumentFormat } from '#core/document/formats.ts';
import { decodeWestern } from '#core/formats/decode-text.ts';

/** What a file that may be a document turned out to be, as far as its own bytes say it. */
export interface LookedAt {
  readonly format: DocumentFormat;
  readonly bytes: number;
  readonly pages: number | null;
  readonly title: string;
  readonly author: string;
  /** A picture of its first page that it carries itself; null for none. */
  readonly thumbnail: Uint8Array | null;
  /** What is written at its beginning, line by line. */
  readonly lines: readonly string[];
}

const LINES = 46;
const LINE_LETTERS = 96;
/** Parts of an office file that are read; larger ones are left alone. */
const MOST_PART_BYTES = 8_000_000;
const MOST_OFFICE_BYTES = 200_000_000;

/** Looks at a file from outside: null where it is no document that is held. Runs in a process that can be killed. */
export async function lookAtDocument(path: string, name: string): Promise<LookedAt | null> {
  const { size: bytes } = await stat(path);
  const type = await fileTypeFromFile(path);
  const nothing = { bytes, pages: null, title: '', author: '', thumbnail: null, lines: [] };
  // Words may begin as a film does: "The free days" has the name of a box where QuickTime has one.
  if (!type || /^(?:video|audio)\//.test(type.mime)) {
    const format = textFormat(name);
    const lines = format ? await linesOfText(path) : null;
    return format && lines ? { ...nothing, format, lines } : null;
  }
  if (!isDocumentFormat(type.ext)) return null;
  const format = type.ext;
  if (format === 'pdf') return { ...nothing, format };
  if (format === 'rtf') return { ...nothing, format, lines: linesOfRtf(await startOf(path)) };
  if (bytes > MOST_OFFICE_BYTES) return { ...nothing, format };
  return { ...nothing, format, ...officeFacts(await readFile(path)) };
}

/** Plain text has no mark of its own: its name has to say what it is, and its bytes have to bear it out. */
function textFormat(name: string): 'txt' | 'csv' | null {
  if (/\.(?:txt|md)$/i.test(name)) return 'txt';
  return /\.(?:csv|tsv)$/i.test(name) ? 'csv' : null;
}

const START_BYTES = 200_000;

async function startOf(path: string): Promise<string> {
  const file = await open(path, 'r');
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(START_BYTES), 0, START_BYTES, 0);
    const bytes = buffer.subarray(0, bytesRead);
    const encoding = bytes[0] === 0xff && bytes[1] === 0xfe ? 'utf-16le' : 'utf-8';
    const text = new TextDecoder(encoding).decode(bytes, { stream: true });
    return text.includes('\uFFFD') ? decodeWestern(bytes) : text;
  } finally {
    await file.close();
  }
}

/** The first lines of text, or null for what is none, or is a page or a drawing of the web. */
async function linesOfText(path: string): Promise<readonly string[] | null> {
  const text = await startOf(path);
  // biome-ignore lint/suspicious/noControlCharactersInRegex: text has none of these.
  if (/[\u0000-\u0008\u000e-\u001a\u001c-\u001f]/.test(text)) return null;
  if (/^\s*<(?:\?xml|!doctype|html|svg)/i.test(text)) return null;
  return shortened(text.split(/\r\n?|\n/));
}

function shortened(lines: readonly string[]): readonly string[] {
  return lines
    .slice(0, LINES)
    .map((line) => line.replace(/\t/g, '   ').replace(/\p{C}/gu, '').slice(0, LINE_LETTERS));
}

/** The words of RTF without its commands, as far as a first look needs them. */
function linesOfRtf(text: string): readonly string[] {
  const words = text
    .replace(
      /\{\\\*?\\?(?:fonttbl|colortbl|stylesheet|info|pict|generator)[^{}]*(?:\{[^{}]*\}[^{}]*)*\}/g,
      '',
    )
    .replace(/\\par[d]?\b ?/g, '\n')
    .replace(/\\'[0-9a-f]{2}|\\[a-z]+-?\d* ?|[{}]/gi, '');
  return shortened(
    words
      .split('\n')
      .map((line) => line.trim())
      .filter(Boolean),
  );
}

const WANTED = new Set([
  'docProps/core.xml',
  'docProps/app.xml',
  'docProps/thumbnail.jpeg',
  'docProps/thumbnail.png',
  'word/document.xml',
  'ppt/slides/slide1.xml',
  'xl/sharedStrings.xml',
  'meta.xml',
  'content.xml',
  'Thumbnails/thumbnail.png',
]);

/** What the parts of an office file say (ECMA-376 Part 2, core properties; OASIS OpenDocument 1.3, `meta.xml`). */
function officeFacts(file: Uint8Array): Pick<LookedAt, 'pages' | 'title' | 'author' | 'thumbnail' | 'lines'> {
  const parts = unzipSync(file, {
    filter: ({ name, originalSize }) => WANTED.has(name) && originalSize <= MOST_PART_BYTES,
  });
  const text = (name: string) => (parts[name] ? new TextDecoder().decode(parts[name]) : '');
  const [core, app, meta] = [text('docProps/core.xml'), text('docProps/app.xml'), text('meta.xml')];
  const element = (xml: string, name: string) =>
    plain(new RegExp(`<${name}(?: [^>]{0,200})?>([^<]{1,1000})</${name}>`).exec(xml)?.[1] ?? '');
  const counted = Number(
    element(app, 'Slides') || element(app, 'Pages') || (/meta:page-count="(\d{1,6})"/.exec(meta)?.[1] ?? ''),
  );
  return {
    pages: Number.isInteger(counted) && counted > 0 ? counted : null,
    title: element(core, 'dc:title') || element(meta, 'dc:title'),
    author:
      element(core, 'dc:creator') || element(meta, 'meta:initial-creator') || element(meta, 'dc:creator'),
    thumbnail:
      parts['docProps/thumbnail.jpeg'] ??
      parts['docProps/thumbnail.png'] ??
      parts['Thumbnails/thumbnail.png'] ??
      null,
    lines: shortened(
      [
        ...paragraphs(text('word/document.xml'), '</w:p>'),
        ...paragraphs(text('ppt/slides/slide1.xml'), '</a:p>'),
        ...paragraphs(text('xl/sharedStrings.xml'), '</si>'),
        ...paragraphs(text('content.xml'), '</text:p>'),
      ].slice(0, LINES),
    ),
  };
}

/** The text between tags, part by part. */
function paragraphs(xml: string, end: string): readonly string[] {
  return xml
    .slice(0, START_BYTES)
    .split(end)
    .map((part) => plain(part.replace(/<[^>]*>/g, ' ')))
    .filter(Boolean);
}

const ENTITIES: Readonly<Record<string, string>> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" };

function plain(text: string): string {
  return text
    .replace(/&(amp|lt|gt|quot|apos);/g, (_, name: string) => ENTITIES[name] ?? '')
    .replace(/\s+/g, ' ')
    .trim();
}
