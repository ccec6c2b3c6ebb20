import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { runProgram } from '../foreign/program.ts';

/** A page of honest work is drawn in two seconds; one that was made to take long, or much, is given up. */
const LIMITS = { millis: 20_000, bytes: 1_500_000_000, answerBytes: 1_000_000 };
/** The longer side of a first page in px: enough for a column on a sharp screen. */
const PAGE_PX = 2000;

/** What a PDF says of itself. */
export interface PdfFacts {
  readonly pages: number | null;
  readonly title: string;
  readonly author: string;
}

/** A PDF that cannot be opened: broken, locked, or too much. `isLocked` where it asks for a password. */
export class PdfProblem extends Error {
  readonly isLocked: boolean;
  constructor(isLocked: boolean, cause: unknown) {
    super(isLocked ? 'The PDF asks for a password.' : 'The PDF cannot be read.', { cause });
    this.name = 'PdfProblem';
    this.isLocked = isLocked;
  }
}

/** Pages, title and author of a PDF (poppler, `pdfinfo`), in a program of its own that can be killed. Throws `PdfProblem`. */
export async function pdfFacts(path: string): Promise<PdfFacts> {
  const said = await poppler('pdfinfo', ['-enc', 'UTF-8', path]);
  const field = (name: string) =>
    new RegExp(`^${name}:[ \\t]+(.{1,500})$`, 'm').exec(said)?.[1]?.trim() ?? '';
  const pages = Number(field('Pages'));
  return {
    pages: Number.isInteger(pages) && pages > 0 ? pages : null,
    title: field('Title'),
    author: field('Author'),
  };
}

/** The first page of a PDF as PNG (poppler, `pdftoppm`). Throws `PdfProblem`. */
export async function pdfFirstPage(path: string): Promise<Buffer> {
  const folder = await mkdtemp(join(tmpdir(), 'placard-page-'));
  try {
    const to = join(folder, 'page');
    await poppler('pdftoppm', [
      '-png',
      '-f',
      '1',
      '-l',
      '1',
      '-singlefile',
      '-scale-to',
      String(PAGE_PX),
      path,
      to,
    ]);
    return await readFile(`${to}.png`).catch((cause: unknown) => {
      throw new PdfProblem(false, cause);
    });
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

async function poppler(program: string, args: readonly string[]): Promise<string> {
  try {
    return await runProgram(program, args, LIMITS);
  } catch (error) {
    const said = error instanceof Error && 'stderr' in error ? String(error.stderr) : '';
    throw new PdfProblem(/password/i.test(said), error);
  }
}
