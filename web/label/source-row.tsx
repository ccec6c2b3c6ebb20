import { useQuery } from '@tanstack/react-query';
import { format } from 'date-fns';
import { useState } from 'react';
import type { Asset } from '#api/assets.ts';
import type { Provenance } from '#api/gather.ts';
import { may } from '#api/people.ts';
import { readLicence, sayLicenceReading } from '#core/gather/reading.ts';
import { embedOf, type HeldEmbed, isPicture } from '#core/page/piece.ts';
import { lookalikesQuery, meQuery, provenanceQuery } from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { SaidList } from '../gather/said-list.tsx';
import { AlikeDeeds } from '../lookalikes/alike-deeds.tsx';
import { Compare } from '../lookalikes/compare.tsx';
import { Button } from '../ui/button.tsx';
import { isAccessRowShown } from './access-row.tsx';
import { Differences } from './differences.tsx';
import { LabelRow, OpenRow, type RowState } from './row.tsx';

interface SourceRowProps {
  readonly asset: Asset;
  readonly isEditable: boolean;
  /** The row of who may see and use it, which is opened from here while everybody may. */
  readonly access: RowState;
}

/** Where the piece came from, when and by whom, and what was said of it there then; and what looks like it. */
export function SourceRow({ asset, isEditable, access }: SourceRowProps) {
  const { data: me } = useQuery(meQuery);
  const came = useQuery(provenanceQuery(asset.id));
  const [showsAll, setShowsAll] = useState(false);
  const comings = came.data ?? [];
  const [latest] = comings;
  if (!latest) return <Unanswered of={came} className="px-0 py-2.5" />;
  const fault = sayLicenceReading(readLicence(latest.said));
  return (
    <LabelRow name="Source">
      {(showsAll ? comings : comings.slice(0, 1)).map((coming) => (
        <Coming key={coming.at} coming={coming} embed={embedOf(asset)} />
      ))}
      {fault && asset.label.licence === 'unknown' && latest.way !== 'upload' ? (
        <p className="text-due">{fault}</p>
      ) : null}
      {comings.length > 1 ? (
        <Button kind="link" aria-expanded={showsAll} onClick={() => setShowsAll(!showsAll)}>
          {showsAll ? 'Only the last time' : `It came ${comings.length} times`}
        </Button>
      ) : null}
      <Differences asset={asset} isEditable={isEditable} />
      {isAccessRowShown(asset) || access.isOpen || !me || !may(me.role, 'say-rights') ? null : (
        <div>
          <OpenRow words="Say who may see it" isWhole state={access} />
        </div>
      )}
      {isPicture(asset) ? <Alike asset={asset} isEditable={isEditable} /> : null}
    </LabelRow>
  );
}

interface ComingProps {
  readonly coming: Provenance;
  readonly embed: HeldEmbed | null;
}

function Coming({ coming, embed }: ComingProps) {
  const { pageAddress, address, said } = coming;
  const place = pageAddress ?? address;
  return (
    <>
      <p>{sayComing(coming, embed)}</p>
      {place ? (
        <p>
          <a href={place} target="_blank" rel="noopener noreferrer">
            {new URL(place).hostname}
          </a>
        </p>
      ) : null}
      <SaidList said={said} words="What was said then" />
    </>
  );
}

function sayComing({ way, by, at, sourceName }: Provenance, embed: HeldEmbed | null): string {
  const when = format(new Date(at), 'd MMMM yyyy');
  if (embed)
    return `Put on the shelf by ${by} on ${when}. ${embed.poster === 'drawn' ? 'Its host shows no picture of it, so that its poster was drawn here.' : 'Its poster is its host’s picture.'}`;
  return way === 'upload'
    ? `Handed in by ${by} on ${when}.`
    : `Gathered by ${by} on ${when}, from ${sourceName ?? 'the web'}.`;
}

function Alike({ asset, isEditable }: { readonly asset: Asset; readonly isEditable: boolean }) {
  const alike = useQuery(lookalikesQuery(asset.id));
  const [isCompared, setCompared] = useState(false);
  const [first, ...others] = alike.data ?? [];
  if (!first) return <Unanswered of={alike} className="px-0 py-2.5" />;
  return (
    <>
      <p>
        It looks like <span className="font-mono text-mono">{first.asset.stem}</span>
        {others.length > 0 ? ` and ${others.length} more` : ''}.
      </p>
      <Button kind="link" onClick={() => setCompared(true)}>
        Compare
      </Button>
      {isCompared ? (
        <Compare
          fresh={{
            title: asset.label.title || asset.stem,
            look: asset.view,
            width: asset.width,
            height: asset.height,
            maker: asset.label.creator,
          }}
          names={['This one', 'The other one']}
          held={[first, ...others].map((one) => one.asset)}
          deeds={(other) =>
            isEditable ? <AlikeDeeds asset={asset} other={other} onDone={() => setCompared(false)} /> : null
          }
          onClose={() => setCompared(false)}
        />
      ) : null}
    </>
  );
}
