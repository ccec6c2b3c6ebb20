import type { UseQueryResult } from '@tanstack/react-query';
import { Button } from '../ui/button.tsx';
import { cx } from '../ui/cx.ts';
import { sayFailure } from './client.ts';

type Question = Pick<
  UseQueryResult<unknown>,
  'data' | 'error' | 'failureReason' | 'isPlaceholderData' | 'refetch'
>;

/** Why a question has no answer yet: it failed, or fails and is asked again by itself. */
export function failureOf(question: Question): Error | null {
  if (question.data !== undefined && !question.isPlaceholderData) return null;
  return question.error ?? question.failureReason;
}

interface UnansweredProps {
  readonly of: Question | readonly Question[];
  /** Set where it stands for a whole screen. */
  readonly isScreen?: boolean;
  readonly className?: string;
}

/** Stands where an answer would: nothing while it is on its way, and what went wrong, with a way to ask again. */
export function Unanswered({ of, isScreen = false, className }: UnansweredProps) {
  const questions = 'refetch' in of ? [of] : of;
  const failed = questions.filter((question) => failureOf(question) !== null);
  const [first] = failed;
  const failure = first ? failureOf(first) : null;
  if (!failure) return null;
  return (
    <div className={cx('max-w-[46ch] p-7 text-soft', className)} role="alert">
      {isScreen ? <h1 className="mb-1 text-xl text-ink">This could not be read</h1> : null}
      <p className="mb-2">{sayFailure(failure)}</p>
      <Button
        onClick={() => {
          for (const question of failed) void question.refetch();
        }}
      >
        Ask again
      </Button>
    </div>
  );
}
