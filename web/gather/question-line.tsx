import { useIsFetching, useQuery, useQueryClient } from '@tanstack/react-query';
import { Button } from '../ui/button.tsx';
import type { GatherAsked } from './gather-address.ts';
import { sourcesQuery } from './gather-queries.ts';
import { GatherSentence } from './gather-question.tsx';

interface QuestionLineProps {
  readonly asked: GatherAsked;
  readonly onAsk: (change: Readonly<Record<string, string | null>>) => void;
}

/** The question; or, while an address is read, what is read and the way back. */
export function QuestionLine({ asked, onAsk }: QuestionLineProps) {
  const sources = useQuery(sourcesQuery);
  if (asked.address || asked.clipId) {
    return (
      <p className="text-3xl leading-normal font-stretch-94% max-narrow:text-xl">
        Gather pictures from <strong>{asked.address ?? 'a clipped page'}</strong>{' '}
        <Button kind="link" onClick={() => onAsk({ address: null, clip: null })}>
          Ask all sources instead
        </Button>
      </p>
    );
  }
  return (
    <GatherSentence question={asked.question} from={asked.from} sources={sources.data ?? []} onAsk={onAsk} />
  );
}

/** How many of the sources have answered. */
export function Answered({ asked }: { readonly asked: GatherAsked }) {
  const sources = useQuery(sourcesQuery);
  const wanted = (sources.data ?? []).filter(({ id }) => asked.from === null || id === asked.from);
  const client = useQueryClient();
  useIsFetching({ queryKey: ['source'] });
  if (asked.address || asked.clipId || wanted.length < 2) return null;
  const answered = wanted.filter(({ id }) =>
    client
      .getQueriesData({ queryKey: ['source', id] })
      .some(([key, data]) => data !== undefined && isAskedNow(key, asked)),
  ).length;
  return (
    <span className="ml-auto text-soft" role="status">
      {answered} of {wanted.length} sources answered
    </span>
  );
}

/** Whether a query is part of what is asked now, and not of an earlier question. */
function isAskedNow(key: readonly unknown[], { question }: GatherAsked): boolean {
  return key[2] === 'albums' || JSON.stringify(key[2]) === JSON.stringify(question);
}
