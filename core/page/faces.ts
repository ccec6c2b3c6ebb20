/**
 * Faces that most machines have, fitted to the measures of those that are shipped with a page: text that is first drawn
 * in one of them takes the same room (CSS Fonts 5, `size-adjust` and `ascent-override`), so that nothing shifts when the
 * page's own face arrives. Shares are of 344 letters of English text, measured in Chromium; Georgia, Times New Roman and
 * Arial by faces of the same widths (Gelasio, Tinos, Arimo).
 */
interface StandIn {
  readonly family: string;
  readonly regular: { readonly local: readonly string[]; readonly size: number };
  readonly bold: { readonly local: readonly string[]; readonly size: number };
  /** Of the face that it stands for, as shares of the text's size. */
  readonly ascent: number;
  readonly descent: number;
}

const SERIF = { ascent: 1.04, descent: 0.34 };
const SANS = { ascent: 0.88, descent: 0.21 };

const STAND_INS: readonly StandIn[] = [
  {
    family: 'Page serif by Georgia',
    regular: { local: ['Georgia', 'Gelasio'], size: 1.078 },
    bold: { local: ['Georgia Bold', 'Gelasio Bold'], size: 0.946 },
    ...SERIF,
  },
  {
    family: 'Page serif by Times',
    regular: { local: ['Times New Roman', 'Liberation Serif', 'Tinos'], size: 1.177 },
    bold: { local: ['Times New Roman Bold', 'Liberation Serif Bold', 'Tinos Bold'], size: 1.134 },
    ...SERIF,
  },
  {
    family: 'Page serif by DejaVu',
    regular: { local: ['DejaVu Serif'], size: 0.924 },
    bold: { local: ['DejaVu Serif Bold'], size: 0.855 },
    ...SERIF,
  },
  {
    family: 'Page sans by Arial',
    regular: { local: ['Arial', 'Liberation Sans', 'Arimo'], size: 0.975 },
    bold: { local: ['Arial Bold', 'Liberation Sans Bold', 'Arimo Bold'], size: 0.939 },
    ...SANS,
  },
  {
    family: 'Page sans by DejaVu',
    regular: { local: ['DejaVu Sans'], size: 0.859 },
    bold: { local: ['DejaVu Sans Bold'], size: 0.783 },
    ...SANS,
  },
];

const named = (kind: string) =>
  STAND_INS.filter(({ family }) => family.includes(kind))
    .map(({ family }) => `"${family}"`)
    .join(', ');

/** The faces of a page's text, and of its captions and labels, as CSS names them. */
export const TEXT_FACES = `"Source Serif 4 Variable", "Source Serif 4", ${named('serif')}, Georgia, serif`;
export const LABEL_FACES = `"Archivo Variable", Archivo, ${named('sans')}, "Helvetica Neue", Arial, sans-serif`;

/** `@font-face` rules for what stands in while the page's own faces are on their way. */
export function standInFaces(): string {
  return STAND_INS.flatMap(({ family, regular, bold, ascent, descent }) =>
    [
      { weight: '100 500', ...regular },
      { weight: '501 900', ...bold },
    ].map(({ weight, local, size }) => {
      const percent = (share: number) => `${Math.round(share * 1000) / 10}%`;
      const sources = local.map((name) => `local("${name}")`).join(', ');
      return `@font-face { font-family: "${family}"; font-weight: ${weight}; src: ${sources}; size-adjust: ${percent(size)}; ascent-override: ${percent(ascent / size)}; descent-override: ${percent(descent / size)}; line-gap-override: 0%; }\n`;
    }),
  ).join('');
}
