import { strToU8, zipSync } from 'fflate';

/** A PDF of some pages with a title and words on each; with its xref table, as programs write one. */
export function pdfOf({
  title = '',
  author = '',
  pages = 1,
}: {
  readonly title?: string;
  readonly author?: string;
  readonly pages?: number;
} = {}): Buffer {
  const numbers = Array.from({ length: pages }, (_, at) => at);
  const text = (said: string) => `(${said.replace(/[()\\]/g, '\\$&')})`;
  const objects = [
    '<< /Type /Catalog /Pages 2 0 R >>',
    `<< /Type /Pages /Count ${pages} /Kids [${numbers.map((at) => `${5 + 2 * at} 0 R`).join(' ')}] >>`,
    '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>',
    `<< ${title ? `/Title ${text(title)}` : ''} ${author ? `/Author ${text(author)}` : ''} >>`,
    ...numbers.flatMap((at) => {
      const drawn = `BT /F1 28 Tf 60 740 Td ${text(`Page ${at + 1} of the tide table`)} Tj ET`;
      return [
        `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595 842] /Resources << /Font << /F1 3 0 R >> >> /Contents ${6 + 2 * at} 0 R >>`,
        `<< /Length ${drawn.length} >>\nstream\n${drawn}\nendstream`,
      ];
    }),
  ];
  let file = '%PDF-1.4\n';
  const offsets = objects.map((object, at) => {
    const offset = file.length;
    file += `${at + 1} 0 obj\n${object}\nendobj\n`;
    return offset;
  });
  const xref = file.length;
  const rows = offsets.map((offset) => `${String(offset).padStart(10, '0')} 00000 n \n`).join('');
  file += `xref\n0 ${objects.length + 1}\n0000000000 65535 f \n${rows}trailer\n<< /Size ${objects.length + 1} /Root 1 0 R /Info 4 0 R >>\nstartxref\n${xref}\n%%EOF\n`;
  return Buffer.from(file, 'latin1');
}

const xml = (text: string) => strToU8(`<?xml version="1.0" encoding="UTF-8"?>\n${text}`);

/** A text as office programs write one (ECMA-376), with what it says of itself. */
export function docxOf(title: string, paragraphs: readonly string[], pages = 2): Uint8Array {
  return zipSync({
    '[Content_Types].xml': xml(
      '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="xml" ContentType="application/xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>',
    ),
    'word/document.xml': xml(
      `<w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body>${paragraphs.map((words) => `<w:p><w:r><w:t>${words}</w:t></w:r></w:p>`).join('')}</w:body></w:document>`,
    ),
    'docProps/core.xml': xml(
      `<cp:coreProperties xmlns:cp="http://schemas.openxmlformats.org/package/2006/metadata/core-properties" xmlns:dc="http://purl.org/dc/elements/1.1/"><dc:title>${title}</dc:title><dc:creator>Ines Okonjo</dc:creator></cp:coreProperties>`,
    ),
    'docProps/app.xml': xml(
      `<Properties xmlns="http://schemas.openxmlformats.org/officeDocument/2006/extended-properties"><Pages>${pages}</Pages></Properties>`,
    ),
  });
}

/** A sheet as OASIS OpenDocument writes one; `mimetype` comes first and is not packed (1.3, part 2, 3.3). */
export function odsOf(title: string): Uint8Array {
  return zipSync({
    mimetype: [strToU8('application/vnd.oasis.opendocument.spreadsheet'), { level: 0 }],
    'meta.xml': xml(
      `<office:document-meta xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:dc="http://purl.org/dc/elements/1.1/"><office:meta><dc:title>${title}</dc:title></office:meta></office:document-meta>`,
    ),
    'content.xml': xml('<office:document-content/>'),
  });
}
