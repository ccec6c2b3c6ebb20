import { useState } from 'react';
import type { Block } from '#core/page/blocks/block.ts';
import { comparePages, type Difference } from '#core/page/compare.ts';
import { type Clash, isOneOf } from '#core/page/merge.ts';
import type { Way } from '#core/page/merge-blocks.ts';
import type { Piece } from '#core/page/piece.ts';
import type { SaveState } from '../page/saver.ts';
import { usePieces } from '../pieces/pieces.ts';
import { Button } from '../ui/button.tsx';
import { OneOf } from '../ui/chips.tsx';
import { sayTime } from '../ui/dates.ts';
import { Deeds } from '../ui/deeds.tsx';
import { Panel } from '../ui/panel.tsx';
import { sayBlock, sayFact, sayWant, sayWhat } from './say-difference.ts';
import { WordsCompared } from './words-compared.tsx';

interface ClashPanelProps {
  readonly saving: SaveState;
  readonly onSettle: (wayOf: (id: string) => Way) => void;
}

/** Two people changed the same places: each is shown, and both states are kept until the second saver has chosen. */
export function ClashPanel({ saving, onSettle }: ClashPanelProps) {
  const [ways, setWays] = useState<ReadonlyMap<string, Way>>(new Map());
  const pieces = usePieces();
  if (saving.kind !== 'clash') return null;
  const { theirs, clashes } = saving;
  const count = clashes.length === 1 ? 'the same place' : `the same ${clashes.length} places`;
  return (
    <Panel
      title={`${theirs.updatedBy} and you changed ${count}`}
      about={`Theirs was saved at ${sayTime(theirs.updatedAt)}. Yours is on the sheet, kept on this machine. What only one of you changed is put together by itself; nothing is lost until you choose.`}
      isOpen
      onClose={() => undefined}
    >
      <ul className="mt-3">
        {clashes.map((clash) => (
          <ClashRow
            key={clash.id}
            clash={clash}
            by={theirs.updatedBy}
            pieces={pieces}
            way={ways.get(clash.id) ?? usualOf(clash)}
            onWay={(way) => setWays(new Map(ways).set(clash.id, way))}
          />
        ))}
      </ul>
      <Deeds>
        <Button
          kind="action"
          onClick={() =>
            onSettle((id) => {
              const clash = clashes.find((one) => one.id === id);
              return ways.get(id) ?? (clash ? usualOf(clash) : 'both');
            })
          }
        >
          Put together
        </Button>
        <Button onClick={() => onSettle(() => 'mine')}>Mine everywhere</Button>
        <Button onClick={() => onSettle(() => 'theirs')}>Theirs everywhere</Button>
      </Deeds>
    </Panel>
  );
}

const usualOf = (clash: Clash): Way => (isOneOf(clash) ? 'mine' : 'both');

const WAYS = [
  ['both', 'both, theirs first'],
  ['theirs', 'theirs'],
  ['mine', 'mine'],
] as const;

interface ClashRowProps {
  readonly clash: Clash;
  readonly by: string;
  readonly pieces: ReadonlyMap<string, Piece>;
  readonly way: Way;
  readonly onWay: (way: Way) => void;
}

function ClashRow({ clash, by, pieces, way, onWay }: ClashRowProps) {
  const name = sayClash(clash, pieces);
  return (
    <li className="border-t border-line py-2">
      <h3 className="font-semibold wrap-anywhere">{name}</h3>
      <p className="mt-1 text-sm text-soft">Struck out as {by} has it, marked as you have it:</p>
      <Compared clash={clash} pieces={pieces} />
      <div className="mt-1.5">
        <OneOf
          about={`What goes on of: ${name}`}
          value={way}
          choices={isOneOf(clash) ? WAYS.slice(1) : WAYS}
          onChoose={onWay}
        />
      </div>
    </li>
  );
}

function sayClash(clash: Clash, pieces: ReadonlyMap<string, Piece>): string {
  if (clash.kind === 'fact') return sayFact(clash.id);
  return clash.kind === 'want' ? `The want “${clash.theirs.purpose}”` : sayBlock(clash.theirs, pieces);
}

interface ComparedProps {
  readonly clash: Clash;
  readonly pieces: ReadonlyMap<string, Piece>;
}

function Compared({ clash, pieces }: ComparedProps) {
  if (clash.kind === 'fact') return <WordsCompared before={clash.theirs} after={clash.mine} />;
  if (clash.kind === 'want')
    return <WordsCompared before={sayWant(clash.theirs, pieces)} after={sayWant(clash.mine, pieces)} />;
  const one = differenceOf(clash.theirs, clash.mine);
  if (one?.kind !== 'changed') return null;
  const { words, ...rest } = one;
  const others = sayWhat({ ...rest, words: null, isMoved: false });
  return (
    <>
      {words ? <WordsCompared before={words.before} after={words.after} /> : null}
      {others === '' ? null : <p className="text-soft">They differ in: {others}.</p>}
    </>
  );
}

function differenceOf(theirs: Block, mine: Block): Difference | undefined {
  const page = (block: Block) => ({ title: '', wants: [], tray: [], blocks: [block] });
  return comparePages(page(theirs), page(mine)).find(({ id }) => id === theirs.attrs.id);
}
