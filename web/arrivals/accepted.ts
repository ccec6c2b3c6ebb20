import { DOCUMENT_FORMATS } from '#core/document/formats.ts';

/** What choosing files offers first: pictures, documents, and sidecars beside them. What a file is, is said by its bytes when it comes in. */
export const ACCEPTED_FILES = [
  'image/*',
  'video/*',
  'audio/*',
  ...Object.values(DOCUMENT_FORMATS).map(({ extension }) => `.${extension}`),
  '.xmp',
].join(',');
