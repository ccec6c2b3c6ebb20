import { writeCsv } from '../formats/csv.ts';
import { licenceAddressOf } from '../rights/attribution.ts';
import { termsOf } from '../rights/house-licence.ts';
import type { Label } from '../rights/label.ts';
import type { PlannedFile } from './plan.ts';

/** One file of a run that was taken away. `bytes` as it lies in the ZIP. */
export interface ManifestLine {
  readonly path: string;
  readonly file: PlannedFile;
  readonly bytes: number;
  readonly original: string;
  readonly label: Label;
  /** What must be written with it, or empty. */
  readonly credit: string;
}

const HEAD = [
  'file',
  'width_px',
  'height_px',
  'bytes',
  'format',
  'original',
  'title',
  'alt',
  'maker',
  'licence',
  'credit',
] as const;

/** The list of a run's files for a spreadsheet. */
export function manifestCsv(lines: readonly ManifestLine[]): string {
  return writeCsv([
    HEAD,
    ...lines.map(({ path, file, bytes, original, label, credit }) => [
      path,
      file.width,
      file.height,
      bytes,
      file.format,
      original,
      label.title,
      altOf(label),
      label.creator,
      termsOf(label).name,
      credit,
    ]),
  ]);
}

/** The same list for programs. */
export function manifestJson(lines: readonly ManifestLine[]): string {
  const files = lines.map(({ path, file, bytes, original, label, credit }) => ({
    file: path,
    width: file.width,
    height: file.height,
    bytes,
    format: file.format,
    original,
    title: label.title,
    alt: altOf(label),
    maker: label.creator,
    licence: termsOf(label).name,
    licenceAddress: licenceAddressOf(label),
    credit,
  }));
  return `${JSON.stringify({ files }, null, 2)}\n`;
}

function altOf({ alt }: Label): string {
  return alt.kind === 'text' ? alt.text : '';
}
