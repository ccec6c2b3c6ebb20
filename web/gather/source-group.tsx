import { useInfiniteQuery } from '@tanstack/react-query';
import { type ReactNode, useState } from 'react';
import type { SealedPicture, SourceAbout } from '#api/gather.ts';
import { type GatherQuestion, type Misfit, misfitOf, sayMisfits, sayUse } from '#core/gather/question.ts';
import { firstSaid } from '#core/gather/reading.ts';
import type { HouseRules } from '#core/page/target.ts';
import { sayFailure } from '../api/client.ts';
import { Button } from '../ui/button.tsx';
import { cx } from '../ui/cx.ts';
import { SILENT_MILLIS, sourceQuery } from './gather-queries.ts';
import { ResultRows, type RowPicture } from './result-rows.tsx';

/** What every group of results is given: the question, for whom, and what is open and chosen on the screen. */
export interface GroupProps {
  readonly question: GatherQuestion;
  readonly rules: HouseRules;
  readonly openId: string | null;
  readonly chosen: ReadonlySet<string>;
  readonly onOpen: (picture: SealedPicture) => void;
  readonly onChoose: (picture: SealedPicture) => void;
  readonly onTake: (picture: SealedPicture) => void;
}

/** A heading with what there is under it, and what can be done with all of it. */
export function Group({
  name,
  about,
  isDue = false,
  way,
  children,
}: {
  readonly name: string;
  readonly about: string;
  readonly isDue?: boolean;
  readonly way?: ReactNode;
  readonly children?: ReactNode;
}) {
  return (
    <section className="pb-3" aria-label={name}>
      <header className="flex items-baseline gap-3 border-t-2 border-ink pt-1.75 pb-2">
        <h2 className="flex-none text-lg">{name}</h2>
        <p className={cx('min-w-0 flex-1', isDue ? 'text-due' : 'text-soft')} role="status">
          {about}
        </p>
        {way}
      </header>
      {children}
    </section>
  );
}

/** One source's answer: what fits, what is folded away and why, or that it does not answer. */
export function SourceGroup({ source, ...props }: GroupProps & { readonly source: SourceAbout }) {
  const answer = useInfiniteQuery(sourceQuery(source.id, props.question));
  if (answer.isPending) return <Group name={source.name} about="is asked" />;
  if (answer.error && !answer.data) {
    return (
      <Group
        name={source.name}
        about={`${sayFailure(answer.error)} It was asked twice, and is asked again in ${SILENT_MILLIS / 1000} s.`}
        isDue
        way={
          <Button kind="link" onClick={() => void answer.refetch()}>
            Ask now
          </Button>
        }
      />
    );
  }
  const pages = answer.data?.pages ?? [];
  const count = pages[0]?.count ?? null;
  const pictures = pages.flatMap((page) => page.pictures);
  return (
    <Group
      name={source.name}
      about={sayCount(count ?? pictures.length, source)}
      way={
        answer.hasNextPage ? (
          <Button
            kind="link"
            aria-label={`More from ${source.name}`}
            disabled={answer.isFetchingNextPage}
            onClick={() => void answer.fetchNextPage()}
          >
            More
          </Button>
        ) : null
      }
    >
      <Sorted name={source.name} pictures={pictures} {...props} />
    </Group>
  );
}

function sayCount(count: number, { about }: SourceAbout): string {
  if (count === 0) return 'nothing of that kind';
  return `${count} found, ${about}`;
}

/** Pictures that answer the question in rows; those that do not are folded away with their reasons and a count. */
export function Sorted({
  name,
  pictures,
  question,
  rules,
  openId,
  chosen,
  onOpen,
  onChoose,
  onTake,
}: GroupProps & { readonly name: string; readonly pictures: readonly SealedPicture[] }) {
  const [isUnfolded, setUnfolded] = useState(false);
  const sorted = pictures.map((picture) => ({ picture, misfit: misfitOf(picture, question) }));
  const fitting = sorted.flatMap(({ picture, misfit }) => (misfit ? [] : [picture]));
  const others = sorted.filter(({ misfit }) => misfit !== undefined);
  const byId = (id: string) => pictures.find((picture) => idOf(picture) === id);
  const on = (deed: (picture: SealedPicture) => void) => (id: string) => {
    const picture = byId(id);
    if (picture) deed(picture);
  };
  const rows = (label: string, list: readonly SealedPicture[]) => (
    <ResultRows
      name={label}
      pictures={list.map((picture) => rowOf(picture, rules))}
      openId={openId}
      chosen={chosen}
      onOpen={on(onOpen)}
      onChoose={on(onChoose)}
      onTake={on(onTake)}
    />
  );
  const misfits = others.flatMap(({ misfit }): Misfit[] => (misfit ? [misfit] : []));
  return (
    <>
      {fitting.length > 0 ? rows(name, fitting) : null}
      {others.length > 0 ? (
        <div className="mt-0.5 mb-2 border border-dashed border-control px-3 py-1.5 text-soft">
          {sayMisfits(misfits)}{' '}
          <Button
            className="min-h-6"
            kind="link"
            aria-expanded={isUnfolded}
            onClick={() => setUnfolded(!isUnfolded)}
          >
            {isUnfolded ? 'Fold them away' : 'Open them'}
          </Button>
        </div>
      ) : null}
      {isUnfolded
        ? rows(
            `${name}, does not fit`,
            others.map(({ picture }) => picture),
          )
        : null}
    </>
  );
}

/** Names a result on the screen, across sources. */
export const idOf = ({ source, key }: Pick<SealedPicture, 'source' | 'key'>) => `${source} ${key}`;

export function titleOf(picture: SealedPicture): string {
  return firstSaid(picture.statements, 'title') || firstSaid(picture.statements, 'alt') || picture.fileName;
}

function rowOf(picture: SealedPicture, rules: HouseRules): RowPicture {
  const size = picture.width > 0 ? `${picture.width} × ${picture.height}` : 'size not said';
  const price = firstSaid(picture.statements, 'price');
  const use =
    picture.source === 'loftdrive' ? { words: 'ours to say', isDue: false } : sayUse(picture, rules);
  const offer = price ? { words: `from ${price}`, isDue: false } : use;
  return {
    id: idOf(picture),
    look: picture.look,
    title: titleOf(picture),
    width: picture.width,
    height: picture.height,
    note: picture.heldAs ? `held as ${picture.heldAs.name}` : `${size} · ${offer.words}`,
    isDue: picture.heldAs ? false : offer.isDue,
  };
}
