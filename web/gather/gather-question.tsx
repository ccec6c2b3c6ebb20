import type { SourceAbout } from '#api/gather.ts';
import type { GatherQuestion } from '#core/gather/question.ts';
import { Choice, LeastWidth, Sentence, Written } from '../sentence/sentence.tsx';

const COMMERCIAL = [
  ['yes', 'may be used commercially'],
  ['no', 'may be used at all'],
] as const;
const CHANGES = [
  ['yes', 'may be changed'],
  ['no', 'may stay as they are'],
] as const;
const SHAPES = [
  ['any', 'of any shape'],
  ['landscape', 'landscape'],
  ['portrait', 'portrait'],
  ['square', 'square'],
] as const;

interface GatherQuestionProps {
  readonly question: GatherQuestion;
  readonly from: string | null;
  readonly sources: readonly SourceAbout[];
  readonly onAsk: (change: Readonly<Record<string, string | null>>) => void;
}

/** The one sentence that all sources are asked with. */
export function GatherSentence({ question, from, sources, onAsk }: GatherQuestionProps) {
  const places = [
    ['everywhere', 'everywhere'] as const,
    ...sources.map(({ id, name }) => [id as string, name] as const),
  ];
  return (
    <Sentence>
      Gather pictures of{' '}
      <Written
        about="Words"
        value={question.words}
        words={question.words || 'anything'}
        onWrite={(words) => onAsk({ words })}
      />{' '}
      from{' '}
      <Choice
        about="Sources"
        value={from ?? 'everywhere'}
        choices={places}
        onChoose={(place) => onAsk({ from: place === 'everywhere' ? null : place })}
      />{' '}
      that{' '}
      <Choice
        about="Use"
        value={question.commercial ? 'yes' : 'no'}
        choices={COMMERCIAL}
        onChoose={(commercial) => onAsk({ commercial })}
      />{' '}
      and{' '}
      <Choice
        about="Changes"
        value={question.changes ? 'yes' : 'no'}
        choices={CHANGES}
        onChoose={(changes) => onAsk({ changes })}
      />
      ,{' '}
      <Choice about="Shape" value={question.shape} choices={SHAPES} onChoose={(shape) => onAsk({ shape })} />,{' '}
      <LeastWidth width={question.leastWidth} onWrite={(leastWidth) => onAsk({ leastWidth })} />
    </Sentence>
  );
}
