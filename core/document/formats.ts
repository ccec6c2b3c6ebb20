/** The kinds of documents that are held, by what their bytes are; none of them is ever opened in a page. */
export const DOCUMENT_FORMATS = {
  pdf: { mime: 'application/pdf', extension: 'pdf', says: 'PDF' },
  docx: {
    mime: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
    extension: 'docx',
    says: 'Text (DOCX)',
  },
  xlsx: {
    mime: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    extension: 'xlsx',
    says: 'Sheet (XLSX)',
  },
  pptx: {
    mime: 'application/vnd.openxmlformats-officedocument.presentationml.presentation',
    extension: 'pptx',
    says: 'Slides (PPTX)',
  },
  odt: { mime: 'application/vnd.oasis.opendocument.text', extension: 'odt', says: 'Text (ODT)' },
  ods: { mime: 'application/vnd.oasis.opendocument.spreadsheet', extension: 'ods', says: 'Sheet (ODS)' },
  odp: { mime: 'application/vnd.oasis.opendocument.presentation', extension: 'odp', says: 'Slides (ODP)' },
  rtf: { mime: 'application/rtf', extension: 'rtf', says: 'Text (RTF)' },
  txt: { mime: 'text/plain', extension: 'txt', says: 'Plain text' },
  csv: { mime: 'text/csv', extension: 'csv', says: 'Table (CSV)' },
} as const satisfies Readonly<
  Record<string, { readonly mime: string; readonly extension: string; readonly says: string }>
>;
export type DocumentFormat = keyof typeof DOCUMENT_FORMATS;

export const DOCUMENT_FORMAT_NAMES = [
  'pdf',
  'docx',
  'xlsx',
  'pptx',
  'odt',
  'ods',
  'odp',
  'rtf',
  'txt',
  'csv',
] as const satisfies readonly DocumentFormat[];

export function isDocumentFormat(format: string): format is DocumentFormat {
  return Object.hasOwn(DOCUMENT_FORMATS, format);
}

/** What is known of the file of a document. Size in bytes; `pages` null where it does not say. */
export interface DocumentFacts {
  readonly format: DocumentFormat;
  readonly bytes: number;
  readonly pages: number | null;
}
