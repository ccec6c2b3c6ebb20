import { fileURLToPath } from 'node:url';
import { standInFaces } from '#core/page/faces.ts';

/** The text faces that pages are set in, shipped with them (SIL Open Font License). */
const FACES = [
  {
    file: 'source-serif-4.woff2',
    family: 'Source Serif 4 Variable',
    style: 'normal',
    weights: '200 900',
    from: '@fontsource-variable/source-serif-4/files/source-serif-4-latin-wght-normal.woff2',
  },
  {
    file: 'source-serif-4-italic.woff2',
    family: 'Source Serif 4 Variable',
    style: 'italic',
    weights: '200 900',
    from: '@fontsource-variable/source-serif-4/files/source-serif-4-latin-wght-italic.woff2',
  },
  {
    file: 'archivo.woff2',
    family: 'Archivo Variable',
    style: 'normal',
    weights: '100 900',
    from: '@fontsource-variable/archivo/files/archivo-latin-wght-normal.woff2',
  },
] as const;

export const FONT_FILES = FACES.map((face) => face.file);

/** Where a face lies on disk; undefined for a name that is not one of ours. */
export function fontFile(name: string): string | undefined {
  const face = FACES.find((one) => one.file === name);
  return face && fileURLToPath(new URL(`../../node_modules/${face.from}`, import.meta.url));
}

/** `@font-face` rules for the faces, found in `folder`. */
export function fontFaces(folder: string): string {
  return FACES.map(
    (face) =>
      `@font-face { font-family: "${face.family}"; font-style: ${face.style}; font-weight: ${face.weights}; font-display: swap; src: url("${folder}/${face.file}") format("woff2"); }\n`,
  )
    .join('')
    .concat(standInFaces());
}
