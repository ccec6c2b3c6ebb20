import { open } from 'node:fs/promises';
import type { DocumentFacts } from '#core/document/formats.ts';
import { ForeignProblem, sayForeignFault } from '../foreign/problem.ts';
import { ProcessPool } from '../foreign/process-pool.ts';
import { shortName } from '../imaging/read-original.ts';
import { HttpProblem } from '../problem.ts';
import type { DOCUMENT_TASKS } from './document-tasks.ts';
import type { LookedAt } from './look.ts';
import { PdfProblem, pdfFacts, pdfFirstPage } from './poppler.ts';

type Task = keyof typeof DOCUMENT_TASKS;
type Input<T extends Task> = Parameters<(typeof DOCUMENT_TASKS)[T]>[0];
type Output<T extends Task> = Awaited<ReturnType<(typeof DOCUMENT_TASKS)[T]>>;

/** A document as it was read. */
export interface ReadDocument extends DocumentFacts {
  readonly title: string;
  readonly author: string;
  /** Its first page as a picture; made when it is asked for. */
  readonly firstPage: () => Promise<Uint8Array>;
}

/** All work on the bytes of documents from outside: in processes of their own, within limits of time and memory. */
export interface DocumentTool {
  /** What a document is; null for a file that is none. Throws an HttpProblem with a sentence for what cannot be taken. */
  readonly read: (file: { readonly path: string; readonly name: string }) => Promise<ReadDocument | null>;
  readonly end: () => Promise<void>;
}

const MOST_BYTES = 900_000_000;
const IDLE_MILLIS = 60_000;
const LIMIT_MILLIS = 15_000;

export function documentTool(): DocumentTool {
  const pool = new ProcessPool(new URL('./document-process.ts', import.meta.url), {
    processes: 1,
    bytes: MOST_BYTES,
    idleMillis: IDLE_MILLIS,
  });
  const run = async <T extends Task>(task: T, input: Input<T>): Promise<Output<T>> =>
    (await pool.run(task, input, { millis: LIMIT_MILLIS })) as Output<T>;
  return {
    read: ({ path, name }) =>
      told(name, async () => {
        if (!(await mayBeDocument(path, name))) return null;
        const looked = await run('look', { path, name });
        if (!looked) return null;
        const facts = looked.format === 'pdf' ? await pdfFacts(path) : looked;
        return {
          format: looked.format,
          bytes: looked.bytes,
          pages: facts.pages,
          title: withoutProgram(facts.title),
          author: facts.author,
          firstPage: () => told(name, () => firstPage(path, looked)),
        };
      }),
    end: () => pool.end(),
  };

  async function firstPage(path: string, { format, thumbnail, lines }: LookedAt): Promise<Uint8Array> {
    if (format === 'pdf') return pdfFirstPage(path);
    return thumbnail ?? run('drawnPage', { format, lines });
  }
}

/** Whether it is worth a look: most of what comes in are pictures, which need not wait for one. */
async function mayBeDocument(path: string, name: string): Promise<boolean> {
  if (/\.(?:txt|md|csv|tsv)$/i.test(name)) return true;
  const file = await open(path, 'r');
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(1024), 0, 1024, 0);
    const start = buffer.subarray(0, bytesRead).toString('latin1');
    return start.includes('%PDF-') || start.startsWith('PK\x03\x04') || start.startsWith('{\\rtf');
  } finally {
    await file.close();
  }
}

/** Programs that print into a PDF put their own name before that of the file. */
function withoutProgram(title: string): string {
  return title
    .replace(/^[\w ]{3,30} - (?=.*\.\w{3,4}$)/, '')
    .replace(/\.(?:docx?|xlsx?|pptx?|od[tsp]|rtf|pdf)$/i, '')
    .replace(/^untitled$/i, '')
    .slice(0, 300)
    .trim();
}

async function told<T>(saidName: string, work: () => Promise<T>): Promise<T> {
  const name = shortName(saidName);
  try {
    return await work();
  } catch (error) {
    if (error instanceof PdfProblem)
      throw new HttpProblem(
        415,
        error.isLocked
          ? `${name} asks for a password before anybody can read it. Save it without one and hand it in again.`
          : `${name} is a PDF that cannot be read: it is broken or was not copied to its end. Save it again.`,
        {},
        { cause: error },
      );
    if (error instanceof ForeignProblem && error.fault !== 'stopped')
      throw new HttpProblem(
        413,
        `${name} ${sayForeignFault(error.fault)}, so it was not taken. Save it again, simpler or smaller.`,
        {},
        { cause: error },
      );
    throw error;
  }
}
