import { useQuery } from '@tanstack/react-query';
import { type AssetQuery, UNFILED } from '#api/assets.ts';
import { foldersQuery } from '../api/queries.ts';
import { licenceShorts, useHouseLicences } from '../label/licences.ts';
import { Choice, LeastWidth, Sentence, Written } from '../sentence/sentence.tsx';

const KINDS = [
  ['any', 'everything'],
  ['photo', 'photographs'],
  ['drawing', 'drawings'],
  ['animated', 'moving pictures'],
  ['transparent', 'pictures with transparency'],
  ['embed', 'embeds'],
  ['document', 'documents'],
  ['film', 'films and sound'],
] as const;
const PARTS = [
  ['standing', 'what stands on the shelf'],
  ['pinned', 'what you pinned'],
  ['folded', 'folded lookalikes'],
  ['thrown-away', 'what was thrown away'],
] as const;
const MISSING = [
  ['nothing', 'complete or not'],
  ['alt', 'without alt text'],
  ['title', 'without a title'],
  ['creator', 'without a maker'],
] as const;
const SHAPES = [
  ['any', 'any shape'],
  ['landscape', 'landscape'],
  ['portrait', 'portrait'],
  ['square', 'square'],
] as const;
const ORDERS = [
  ['newest', 'newest'],
  ['oldest', 'oldest'],
  ['name', 'by name'],
  ['widest', 'widest'],
] as const;
const LICENCES = [
  ['any', 'under any licence'],
  ['commercial', 'that may be used commercially'],
  ['changeable', 'that may be cropped'],
  ['unknown', 'not cleared yet'],
  ['comp', 'comps only'],
] as const;
/** Asked for in words of their own. */
const ASKED_SO: ReadonlySet<string> = new Set(['unknown', 'comp']);

/** The one sentence the shelf is asked with. */
export function ShelfQuestion({
  question,
  onAsk,
}: {
  readonly question: AssetQuery;
  readonly onAsk: (question: AssetQuery) => void;
}) {
  const folders = useQuery(foldersQuery);
  const change = (part: AssetQuery) => onAsk({ ...question, ...part });
  const places = [
    ['', 'the whole shelf'] as const,
    [UNFILED, 'no folder'] as const,
    ...(folders.data ?? []).map((folder) => [folder.path, folder.path.replaceAll('/', ' / ')] as const),
  ];
  const licences = [
    ...LICENCES,
    ...licenceShorts(useHouseLicences()).flatMap(([key, short]) =>
      ASKED_SO.has(key) ? [] : [[key, `under ${short}`] as const],
    ),
  ];
  const width = Number(question.leastWidth ?? 0);
  return (
    <Sentence>
      Show{' '}
      {question.part && question.part !== 'standing' ? (
        <>
          <Choice about="Part" value={question.part} choices={PARTS} onChoose={(part) => change({ part })} />,{' '}
        </>
      ) : null}
      <Choice
        about="Kind"
        value={question.kind ?? 'any'}
        choices={KINDS}
        onChoose={(kind) => change({ kind })}
      />{' '}
      from{' '}
      <Choice
        about="Folder"
        value={question.folder ?? ''}
        choices={places}
        onChoose={(folder) => change({ folder })}
      />
      ,{' '}
      <Choice
        about="Licence"
        value={question.licence ?? 'any'}
        choices={licences}
        onChoose={(licence) => change({ licence })}
      />
      , about{' '}
      <Written
        about="Words"
        value={question.words ?? ''}
        words={question.words || 'anything'}
        onWrite={(words) => change({ words })}
      />
      ,{' '}
      <Choice
        about="Missing"
        value={question.missing ?? 'nothing'}
        choices={MISSING}
        onChoose={(missing) => change({ missing })}
      />
      ,{' '}
      <Choice
        about="Shape"
        value={question.shape ?? 'any'}
        choices={SHAPES}
        onChoose={(shape) => change({ shape })}
      />
      , <LeastWidth width={width} onWrite={(leastWidth) => change({ leastWidth })} />,{' '}
      <Choice
        about="Order"
        value={question.order ?? 'newest'}
        choices={ORDERS}
        onChoose={(order) => change({ order })}
      />{' '}
      first
    </Sentence>
  );
}
