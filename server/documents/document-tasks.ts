import type { DocumentFormat } from '#core/document/formats.ts';
import { drawnPage } from './drawn-page.ts';
import { lookAtDocument } from './look.ts';

interface Written {
  readonly format: DocumentFormat;
  readonly lines: readonly string[];
}

/** All that is done with the bytes of documents from outside. Each runs in a process that can be killed. */
export const DOCUMENT_TASKS = {
  look: ({ path, name }: { readonly path: string; readonly name: string }) => lookAtDocument(path, name),
  drawnPage: ({ format, lines }: Written): Uint8Array => drawnPage(format, lines),
} as const;
