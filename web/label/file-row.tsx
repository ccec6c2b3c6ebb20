import { DOCUMENT_FORMATS, type DocumentFacts } from '#core/document/formats.ts';
import { sayBytes } from '#core/media/weight.ts';
import { LabelRow } from './row.tsx';

/** What the file of a document is, and the way to read it: it is saved, and never opened beside the app. */
export function FileRow({
  document: { format, pages, bytes },
  address,
}: {
  readonly document: DocumentFacts;
  readonly address: string;
}) {
  const length = pages === null ? '' : pages === 1 ? ', 1 page' : `, ${pages} pages`;
  return (
    <LabelRow name="File">
      <p>
        {DOCUMENT_FORMATS[format].says}
        {length}, {sayBytes(bytes)}.{' '}
        <a href={address} download rel="noreferrer">
          Download it
        </a>
      </p>
      <p className="text-soft">On a page its first page stands for it, and leads to the file.</p>
    </LabelRow>
  );
}
