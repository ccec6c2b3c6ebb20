import { wordsOfPurpose } from '#core/gather/purpose.ts';
import type { GatherQuestion } from '#core/gather/question.ts';
import type { Want } from '#core/page/model.ts';

/** What of Gather stands in the address bar: the question, whom it is for, and an address that is read instead. */
export interface GatherAsked {
  readonly question: GatherQuestion;
  readonly pageId: string | null;
  readonly wantId: string | null;
  /** Ask only this source; null asks all. */
  readonly from: string | null;
  readonly address: string | null;
  readonly clipId: string | null;
  readonly albumId: string | null;
}

const SHAPES = ['any', 'landscape', 'portrait', 'square'] as const;

interface Preset {
  readonly commercial: boolean;
  readonly want: Want | null;
}

/** Reads the address bar; what it does not say comes from the want and the target. */
export function readAsked(params: URLSearchParams, preset: Preset): GatherAsked {
  const { want } = preset;
  const flag = (name: string, otherwise: boolean) => {
    const said = params.get(name);
    return said === 'yes' || said === 'no' ? said === 'yes' : otherwise;
  };
  const width = Number(params.get('leastWidth') ?? want?.leastWidth ?? 0);
  return {
    question: {
      words: params.get('words') ?? (want ? wordsOfPurpose(want.purpose) : ''),
      commercial: flag('commercial', preset.commercial),
      changes: flag('changes', true),
      shape: SHAPES.find((shape) => shape === params.get('shape')) ?? want?.shape ?? 'any',
      leastWidth: Number.isInteger(width) && width >= 0 && width <= 20_000 ? width : 0,
    },
    pageId: params.get('page'),
    wantId: params.get('want'),
    from: params.get('from'),
    address: params.get('address'),
    clipId: params.get('clip'),
    albumId: params.get('album'),
  };
}

/** The parameters with some of them changed; `null` takes one out. */
export function withAsked(
  params: URLSearchParams,
  change: Readonly<Record<string, string | null>>,
): URLSearchParams {
  const next = new URLSearchParams(params);
  for (const [name, value] of Object.entries(change)) {
    if (value === null) next.delete(name);
    else next.set(name, value);
  }
  return next;
}

/** The question as a source is asked it. */
export function queryOf(question: GatherQuestion): Record<string, string> {
  return {
    words: question.words,
    commercial: question.commercial ? 'yes' : 'no',
    changes: question.changes ? 'yes' : 'no',
    shape: question.shape,
    leastWidth: String(question.leastWidth),
  };
}
