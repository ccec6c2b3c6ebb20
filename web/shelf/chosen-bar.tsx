import { useQuery } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import * as v from 'valibot';
import type { Asset } from '#api/assets.ts';
import type { PageSummary } from '#api/pages.ts';
import { may } from '#api/people.ts';
import { stepsOf } from '#core/media/recipe-says.ts';
import { sayTone } from '#core/media/tone.ts';
import { LicenceKeySchema, licenceByKey, termsOf } from '#core/rights/house-licence.ts';
import { sayFailure } from '../api/client.ts';
import { foldersQuery, meQuery, mostSizes, pagesQuery, targetsQuery } from '../api/queries.ts';
import { putOnTray, takeOffTray } from '../arrivals/arrivals.ts';
import { licenceGroups, useHouseLicences } from '../label/licences.ts';
import { sayPageTitle } from '../pages/say-title.ts';
import { type ChangeOfEach, changePieces } from '../pieces/pieces.ts';
import { replacePiece, throwAway } from '../pieces/put-away.ts';
import { sayPageCount } from '../pieces/say-used-on.ts';
import { draftNamesOver, draftRunOver } from '../run/draft.ts';
import { Button } from '../ui/button.tsx';
import { Choose } from '../ui/choose.tsx';
import { ChosenToolbar } from '../ui/chosen-toolbar.tsx';
import { Opens } from '../ui/opens.tsx';
import { toast } from '../ui/toast.ts';
import { ledger } from '../undo/ledger.ts';
import { ManyCredit } from './many-credit.tsx';
import { ManyTerms } from './many-terms.tsx';
import { ManyWords } from './many-words.tsx';
import { ThrowAway } from './piece-deeds.tsx';

/** What can be done with the chosen pieces. */
export function ChosenBar({
  assets,
  onClear,
}: {
  readonly assets: readonly Asset[];
  readonly onClear: () => void;
}) {
  const { data: me } = useQuery(meQuery);
  const pages = useQuery({ ...pagesQuery, enabled: Boolean(me && may(me.role, 'edit-pages')) });
  const folders = useQuery(foldersQuery);
  const ofHouse = useHouseLicences();
  const target = mostSizes(useQuery(targetsQuery).data ?? []);
  const navigate = useNavigate();
  if (!me) return null;
  const ids = assets.map((asset) => asset.id);
  const change = async (chosen: readonly string[], part: ChangeOfEach, name: string, done: string) => {
    try {
      await changePieces(chosen, part, name);
      toast(done);
    } catch (error) {
      toast.error(sayFailure(error));
    }
  };
  const changeAll = (part: ChangeOfEach, name: string) =>
    change(ids, part, `${name} of ${count}`, `Changed: ${name} of ${count}.`);
  const prepared = assets.filter((asset) => stepsOf(asset.prep, sayTone).length > 0);
  const count = assets.length === 1 ? '1 piece' : `${assets.length} pieces`;
  return (
    <ChosenToolbar about="With the chosen pieces" count={assets.length}>
      {may(me.role, 'say-rights') && target ? (
        <Button
          kind="bar"
          onClick={() => {
            draftRunOver(ids, target);
            navigate('/shelf/runs/new');
          }}
        >
          Run...
        </Button>
      ) : null}
      {may(me.role, 'edit-pages') ? (
        <Choose
          kind="bar"
          side="top"
          words="Put on a tray..."
          choices={(pages.data?.pages ?? []).map((page) => [page.id, sayPageTitle(page.title)] as const)}
          onChoose={(id) =>
            void onto(
              assets,
              pages.data?.pages.find((page) => page.id === id),
            )
          }
        />
      ) : null}
      <Choose
        kind="bar"
        words="Folder..."
        choices={(folders.data ?? []).map(
          (folder) => [folder.path, folder.path.replaceAll('/', ' / ')] as const,
        )}
        onChoose={(folder) => void change(ids, { folder }, `moving ${count}`, `${count} moved to ${folder}.`)}
      />
      {may(me.role, 'say-rights') && target ? (
        <Button
          kind="bar"
          onClick={() => {
            draftNamesOver(ids, target);
            navigate('/shelf/runs/new');
          }}
        >
          Name...
        </Button>
      ) : null}
      <Opens about="Maker and credit of the chosen pieces" trigger={<Button kind="bar">Credit...</Button>}>
        {(close) => <ManyCredit assets={assets} onChange={changeAll} onDone={close} />}
      </Opens>
      <Opens about="Key words of the chosen pieces" trigger={<Button kind="bar">Key words...</Button>}>
        {() => <ManyWords assets={assets} onChange={changeAll} />}
      </Opens>
      {may(me.role, 'say-rights') ? (
        <Choose
          kind="bar"
          side="top"
          words="Licence..."
          choices={licenceGroups(ofHouse).flatMap(([, choices]) =>
            choices.filter(([key]) => key !== 'not-copied'),
          )}
          onChoose={(id) => {
            const said = v.is(LicenceKeySchema, id) ? licenceByKey(id, ofHouse) : null;
            if (said)
              void change(
                ids,
                { label: said },
                `the licence of ${count}`,
                `${count} now: ${termsOf(said).short}.`,
              );
          }}
        />
      ) : null}
      {may(me.role, 'say-rights') ? (
        <Opens about="What was agreed for the chosen pieces" trigger={<Button kind="bar">Agreed...</Button>}>
          {(close) => <ManyTerms assets={assets} onChange={changeAll} onDone={close} />}
        </Opens>
      ) : null}
      {may(me.role, 'say-rights') && prepared.length > 0 && assets.length > 1 ? (
        <Choose
          kind="bar"
          side="top"
          words="Prepare all like..."
          choices={prepared.map((asset) => [asset.id, asset.label.title || asset.stem] as const)}
          onChoose={(id) => {
            const model = assets.find((asset) => asset.id === id);
            const others = ids.filter((other) => other !== id);
            if (model)
              void change(
                others,
                // How much a picture may be squeezed is its own.
                { prep: { ...model.prep, quality: {} } },
                `preparing ${count}`,
                `${others.length === 1 ? '1 piece' : `${others.length} pieces`} prepared like ${model.label.title || model.stem}: ${stepsOf(
                  model.prep,
                  sayTone,
                )
                  .map(({ says }) => says)
                  .join(' ')}`,
              );
          }}
        />
      ) : null}
      {may(me.role, 'edit-pages') && assets.length === 2 ? <Swap assets={assets} onDone={onClear} /> : null}
      {may(me.role, 'say-rights') ? (
        <ThrowAway
          assets={assets}
          words="Throw away"
          kind="bar"
          onThrow={async () => {
            await throwAway(assets).catch((error: unknown) => toast.error(sayFailure(error)));
            onClear();
          }}
        />
      ) : null}
      <Button kind="bar" onClick={onClear}>
        Clear
      </Button>
    </ChosenToolbar>
  );
}

interface SwapProps {
  readonly assets: readonly Asset[];
  readonly onDone: () => void;
}

/** Replaces one of two chosen pieces by the other, wherever it stands. */
function Swap({ assets, onDone }: SwapProps) {
  const [one, other] = assets;
  if (!one || !other) return null;
  const ways = [
    [one, other],
    [other, one],
  ] as const;
  return (
    <Choose
      kind="bar"
      side="top"
      words="Replace..."
      choices={ways.map(([fresh, old]) => [fresh.id, `${nameOf(old)} by ${nameOf(fresh)}${sayWhere(old)}`])}
      onChoose={(id) => {
        const way = ways.find(([fresh]) => fresh.id === id);
        if (!way) return;
        const [fresh, old] = way;
        void replacePiece(old, fresh).then(
          () => {
            toast(`${nameOf(fresh)} stands where ${nameOf(old)} stood${sayWhere(old)}.`);
            onDone();
          },
          (error: unknown) => toast.error(sayFailure(error)),
        );
      }}
    />
  );
}

const nameOf = ({ label, stem }: Asset) => label.title || stem;

function sayWhere({ usedOn }: Asset): string {
  return usedOn.length === 0 ? '' : ` ${sayPageCount({ usedOn })}`;
}

async function onto(assets: readonly Asset[], page: PageSummary | undefined): Promise<void> {
  if (!page) return;
  const ids = assets.map((asset) => asset.id);
  try {
    await putOnTray(page.id, ids, null);
    ledger.add({
      name: 'putting it on a tray',
      scope: 'shelf',
      undo: () => takeOffTray(page.id, ids),
      redo: () => putOnTray(page.id, ids, null),
    });
    toast(`${assets.length === 1 ? '1 piece' : `${assets.length} pieces`} put on the tray of ${page.title}.`);
  } catch (error) {
    toast.error(sayFailure(error));
  }
}
