import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Asset } from '#api/assets.ts';
import type { Step } from '#api/progress.ts';
import { type Carried, carriedOver, isSameShape, replacing, sayOwnWords } from '#core/page/replacing.ts';
import type { HouseRules } from '#core/page/target.ts';
import { sayFailure } from '../api/client.ts';
import { assetQuery, ownWordsQuery } from '../api/queries.ts';
import { sayPageTitle } from '../pages/say-title.ts';
import { changePiece, pieceOf, putPieces } from '../pieces/pieces.ts';
import { replacePiece } from '../pieces/put-away.ts';
import { sayPageCount, sayUsedOn } from '../pieces/say-used-on.ts';
import { Button } from '../ui/button.tsx';
import { Checkbox } from '../ui/checkbox.tsx';
import { Deeds } from '../ui/deeds.tsx';
import { Fault } from '../ui/fault.tsx';
import { Panel } from '../ui/panel.tsx';
import { Progress } from '../ui/progress.tsx';
import { toast } from '../ui/toast.ts';
import { CutsCompared } from './cuts-compared.tsx';
import { FindPiece } from './find-piece.tsx';

interface ReplacePanelProps {
  readonly asset: Asset;
  /** The target whose licence terms count. */
  readonly rules: HouseRules;
  /** What takes its place, where that is known: then all that was said goes over, unless somebody says otherwise. */
  readonly by?: Asset;
  readonly onClose: () => void;
}

const titleOf = (asset: Asset) => asset.label.title || asset.stem;

/** Puts another piece in the place of this one on every page: it is looked for, and what changes is read, before it is done. */
export function ReplacePanel({ asset: known, rules, by, onClose }: ReplacePanelProps) {
  // Where it stands may have changed since it was read, by the very page that one is on.
  const now = useQuery({ ...assetQuery(known.id), staleTime: 0 });
  const asset = now.data ?? known;
  const [fresh, setFresh] = useState<Asset | null>(by ?? null);
  return (
    <Panel
      title={`Replace ${titleOf(asset)} on every page`}
      about={`It stands ${sayUsedOn(asset)}. Width, position, margins and links stay as they are there.`}
      isOpen
      onClose={onClose}
    >
      {fresh ? (
        <Agree
          asset={asset}
          fresh={fresh}
          rules={rules}
          isOffered={fresh.id === by?.id}
          onBack={() => setFresh(null)}
          onClose={onClose}
        />
      ) : (
        <FindPiece except={asset.id} onChoose={setFresh} />
      )}
    </Panel>
  );
}

const CARRIED_WORDS: Readonly<Record<Carried, string>> = {
  title: 'title',
  alt: 'alt text',
  caption: 'caption',
  translations: 'words in other languages',
  keywords: 'key words',
};

interface AgreeProps extends ReplacePanelProps {
  readonly isOffered: boolean;
  readonly fresh: Asset;
  readonly onBack: () => void;
}

function Agree({ asset, fresh, rules, isOffered, onBack, onClose }: AgreeProps) {
  const own = useQuery(ownWordsQuery(asset.id)).data ?? [];
  const { mayCarry, differs } = replacing(pieceOf(asset), pieceOf(fresh), rules, new Date());
  const [carried, setCarried] = useState<readonly Carried[]>(isOffered ? mayCarry : []);
  const [fault, setFault] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const [step, setStep] = useState<Step | null>(null);
  const replace = async () => {
    setBusy(true);
    setFault(null);
    try {
      if (carried.length > 0) {
        putPieces([fresh]);
        await changePiece(fresh.id, { label: carriedOver(asset.label, carried) }, 'words carried over');
      }
      await replacePiece(asset, fresh, setStep);
      toast(`${titleOf(fresh)} stands in its place ${sayPageCount(asset)}.`);
      onClose();
    } catch (error) {
      setFault(sayFailure(error));
      setBusy(false);
    }
  };
  return (
    <div className="mt-3 grid gap-3">
      <div className="grid grid-cols-2 gap-3">
        {(
          [
            ['Now', asset],
            ['Then', fresh],
          ] as const
        ).map(([when, one]) => (
          <figure key={when}>
            <img className="max-h-[30vh] w-full bg-stage object-contain" src={one.view} alt={titleOf(one)} />
            <figcaption className="mt-1.25">
              <strong>{when}:</strong> {titleOf(one)}
            </figcaption>
          </figure>
        ))}
      </div>
      {asset.usedOn.length > 0 && !isSameShape(asset, fresh) ? (
        <CutsCompared
          now={{ asset, when: 'Now', which: titleOf(asset) }}
          then={{ asset: fresh, when: 'Then', which: titleOf(fresh) }}
        />
      ) : null}
      {differs.length > 0 ? (
        <ul className="list-disc pl-4.5 text-due">
          {differs.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      ) : null}
      {own.length > 0 ? (
        <p className="text-due">
          {titleOf(asset)} is described in words of their own on these pages, which stay. Read them again:{' '}
          {own.map(({ id, title, ...words }, at) => (
            <span key={id}>
              {at > 0 ? ', ' : ''}
              <Link to={`/pages/${id}?piece=${asset.id}`}>{sayPageTitle(title)}</Link> ({sayOwnWords(words)})
            </span>
          ))}
          .
        </p>
      ) : null}
      {mayCarry.length > 0 ? (
        <fieldset className="grid gap-1">
          <legend className="mb-1 font-semibold">
            {titleOf(fresh)} has none of these yet. Carry over, if it shows the same:
          </legend>
          {mayCarry.map((field) => (
            <Checkbox
              key={field}
              checked={carried.includes(field)}
              onChange={(isOn) =>
                setCarried(isOn ? [...carried, field] : carried.filter((one) => one !== field))
              }
            >
              its {CARRIED_WORDS[field]}
            </Checkbox>
          ))}
        </fieldset>
      ) : null}
      <p className="text-soft">
        {titleOf(asset)} is thrown away, and kept for 30 days. Its licence and credit are not carried over.
        Undo takes it back, on every page at once.
      </p>
      <Fault says={fault} />
      {isBusy ? (
        <div role="status">
          <p className="mb-1">Putting it in place {sayPageCount(asset)}, all at once...</p>
          <Progress name="Putting it in place" value={step ? (100 * step.done) / step.of : null} />
        </div>
      ) : null}
      <Deeds>
        <Button kind="action" disabled={isBusy} onClick={() => void replace()}>
          Replace it {sayPageCount(asset)}
        </Button>
        <Button disabled={isBusy} onClick={onBack}>
          Another one
        </Button>
      </Deeds>
    </div>
  );
}
