/** What an inherited page can have that it should not, by what it is about. Counts are those of the whole page. */
interface FaultValues {
  'letter-heading': { readonly count: number };
  'layout-table': { readonly count: number };
  spacing: { readonly count: number };
  obsolete: { readonly count: number; readonly names: readonly string[] };
  'inline-style': { readonly count: number };
  'language-missing': { readonly language: string };
  'title-missing': Record<string, never>;
  encoding: { readonly encoding: string };
  'mixed-content': { readonly count: number };
  'code-as-text': { readonly count: number };
  'dead-player': { readonly count: number; readonly leads: number };
  'embed-refused': { readonly count: number; readonly why: string };
  frames: { readonly count: number; readonly address: string };
  'script-written': { readonly count: number };
  'alt-missing': { readonly count: number };
  'alt-file-name': { readonly count: number; readonly example: string };
  'linked-decorative': { readonly count: number };
  'link-vague': { readonly count: number; readonly words: string; readonly named: number };
  'link-dead': { readonly count: number; readonly address: string };
  'link-moved': { readonly count: number };
  stretched: { readonly count: number; readonly percent: number };
  enlarged: { readonly count: number; readonly times: number };
  oversized: { readonly count: number; readonly times: number };
  'file-name': { readonly count: number; readonly example: string };
  'licence-unknown': { readonly count: number; readonly example: string };
  'picture-gone': { readonly count: number; readonly example: string };
  held: { readonly count: number };
  'captions-missing': { readonly count: number };
  form: { readonly count: number };
}
export type FaultCode = keyof FaultValues;

type OfCode<C extends FaultCode> = {
  readonly code: C;
  readonly values: FaultValues[C];
  /** The elements that it is about, by their places in the document (`spots.ts`), the first of many. */
  readonly spots: readonly number[];
};
export type Fault = { [C in FaultCode]: OfCode<C> }[FaultCode];

export const MOST_SPOTS = 20;

/** The codes in the order in which they are told: what a reader misses most first. */
const ORDER: readonly FaultCode[] = [
  'picture-gone',
  'dead-player',
  'frames',
  'script-written',
  'embed-refused',
  'code-as-text',
  'licence-unknown',
  'alt-missing',
  'alt-file-name',
  'linked-decorative',
  'captions-missing',
  'link-dead',
  'link-moved',
  'link-vague',
  'stretched',
  'enlarged',
  'oversized',
  'letter-heading',
  'layout-table',
  'spacing',
  'obsolete',
  'inline-style',
  'mixed-content',
  'file-name',
  'held',
  'language-missing',
  'title-missing',
  'encoding',
  'form',
];

/** Faults in the order in which they are told. */
export function inOrder(faults: readonly Fault[]): readonly Fault[] {
  return [...faults].sort((one, other) => ORDER.indexOf(one.code) - ORDER.indexOf(other.code));
}

/** What a fault leads to: it is mended as the page comes in, or a person is asked. */
export type Outcome = 'mended' | 'asks';

const ASKS: ReadonlySet<FaultCode> = new Set([
  'picture-gone',
  'frames',
  'script-written',
  'embed-refused',
  'licence-unknown',
  'alt-missing',
  'alt-file-name',
  'linked-decorative',
  'captions-missing',
  'link-dead',
  'title-missing',
  'form',
] satisfies FaultCode[]);

/** Whether it is mended safely, or needs a person: what cannot be known is never made up. */
export function outcomeOf(fault: Fault): Outcome {
  switch (fault.code) {
    case 'dead-player':
      return fault.values.leads === fault.values.count ? 'mended' : 'asks';
    case 'link-vague':
      return fault.values.named === fault.values.count ? 'mended' : 'asks';
    default:
      return ASKS.has(fault.code) ? 'asks' : 'mended';
  }
}
