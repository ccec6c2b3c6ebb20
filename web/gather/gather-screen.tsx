import './gather.css';
import '../label/label.css';
import { useIsFetching, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { toast } from 'sonner';
import type { Asset } from '#api/assets.ts';
import type { SealedPicture } from '#api/gather.ts';
import type { Want } from '#core/page/model.ts';
import type { HouseRules } from '#core/page/target.ts';
import type { LicenceId } from '#core/rights/licences.ts';
import { sayFailure } from '../api/client.ts';
import { strictest, targetsQuery } from '../api/queries.ts';
import { bringIn, putOnTray } from '../arrivals/arrivals.ts';
import { readCarried } from '../arrivals/carried.ts';
import { carriedText, mayCarry } from '../arrivals/carried-text.ts';
import { ComingIn } from '../arrivals/coming-in.tsx';
import { filesOfDrop } from '../arrivals/dropped.ts';
import { gather } from '../arrivals/gatherings.ts';
import { useDrop } from '../arrivals/use-drop.ts';
import { usePaste } from '../arrivals/use-paste.ts';
import { hostsQuery } from '../embeds/embed-queries.ts';
import { SHAPE_WORDS } from '../pages/want-lines.tsx';
import { Button } from '../ui/button.tsx';
import { AlbumsGroup } from './albums-group.tsx';
import { ClipperCard } from './clipper-card.tsx';
import { type GatherAsked, readAsked, withAsked } from './gather-address.ts';
import { gatherPageQuery, sourcesQuery } from './gather-queries.ts';
import { GatherSentence } from './gather-question.tsx';
import { HeldLabel } from './held-label.tsx';
import { OwnMachine } from './own-machine.tsx';
import { ClipGroup, PastedGroup, ReadingGroup } from './reading-group.tsx';
import { ResultLabel } from './result-label.tsx';
import { ShelfGroup } from './shelf-group.tsx';
import { idOf, SourceGroup } from './source-group.tsx';

export function GatherScreen() {
  const [params] = useSearchParams();
  const pageId = params.get('page');
  const page = useQuery({ ...gatherPageQuery(pageId ?? ''), enabled: pageId !== null });
  const targets = useQuery(targetsQuery);
  const sources = useQuery(sourcesQuery);
  if (pageId !== null && page.error) return <p className="empty">{sayFailure(page.error)}</p>;
  if (sources.error) return <p className="empty">{sayFailure(sources.error)}</p>;
  if (!targets.data || !sources.data || (pageId !== null && !page.data)) return null;
  const rules = page.data?.target.rules ?? strictest(targets.data)?.rules;
  if (!rules) return null;
  return (
    <Gathering
      key={pageId}
      rules={rules}
      page={page.data ? { id: page.data.id, title: page.data.doc.title, wants: page.data.doc.wants } : null}
    />
  );
}

interface ForPage {
  readonly id: string;
  readonly title: string;
  readonly wants: readonly Want[];
}

/** What is open at the right: a result, or a piece that is held already. */
type Opened =
  | { readonly kind: 'result'; readonly picture: SealedPicture }
  | { readonly kind: 'held'; readonly asset: Asset }
  | null;

function Gathering({ rules, page }: { readonly rules: HouseRules; readonly page: ForPage | null }) {
  const [params, setParams] = useSearchParams();
  const want = page?.wants.find(({ id }) => id === params.get('want')) ?? null;
  const asked = readAsked(params, { commercial: rules.commercial, want });
  const [opened, setOpened] = useState<Opened>(null);
  const [chosen, setChosen] = useState<ReadonlyMap<string, SealedPicture>>(new Map());
  const [licence, setLicence] = useState<LicenceId | null>(null);
  const [folder, setFolder] = useState('');
  const client = useQueryClient();
  const ask = (change: Readonly<Record<string, string | null>>) => setParams(withAsked(params, change));
  const open = (next: Opened) => {
    setOpened(next);
    setLicence(null);
  };
  const isFilled = want?.filledBy !== null;
  const take = async (pictures: readonly SealedPicture[], forWant: boolean) => {
    try {
      await gather({
        seals: pictures.map(({ seal }) => seal),
        pageId: page?.id ?? null,
        wantId: forWant ? (want?.id ?? null) : null,
        folder,
        licence: pictures.length === 1 ? licence : null,
      });
      setChosen(new Map());
    } catch (error) {
      toast.error(sayFailure(error));
    }
  };
  const takeHeld = async (asset: Asset) => {
    if (!page) return;
    try {
      await putOnTray(page.id, [asset.id], want && !isFilled ? want.id : null);
      await client.invalidateQueries({ queryKey: ['gather-page'] });
      toast(`${asset.stem} is on the tray of ${page.title}.`);
    } catch (error) {
      toast.error(sayFailure(error));
    }
  };
  const choose = (picture: SealedPicture) =>
    setChosen((before) => {
      const next = new Map(before);
      if (!next.delete(idOf(picture))) next.set(idOf(picture), picture);
      return next;
    });
  const takeCarried = useCarriedHere(ask, asked, folder);
  usePaste(takeCarried);
  const drop = useDrop(mayCarry, takeCarried);
  const group = {
    question: asked.question,
    rules,
    openId: opened?.kind === 'result' ? idOf(opened.picture) : null,
    chosen: new Set(chosen.keys()),
    onOpen: (picture: SealedPicture) => open({ kind: 'result', picture }),
    onChoose: choose,
    onTake: (picture: SealedPicture) => void take([picture], want !== null && !isFilled),
  };
  return (
    <div className={`gather ${drop.isOver ? 'is-over' : ''}`} {...drop.handlers}>
      <section className="gather-question" aria-label="Question">
        <h1 className="hidden-words">Gather</h1>
        <QuestionLine asked={asked} onAsk={ask} />
        <div className="gather-under">
          {page ? (
            <span>
              <span className="soft">for</span>{' '}
              <Link to={`/pages/${page.id}`}>
                <strong>{page.title || 'Untitled page'}</strong>
              </Link>
            </span>
          ) : null}
          <OwnMachine
            folder={folder}
            onFolder={setFolder}
            onFiles={(files) => bringIn(files, folder, { pageId: page?.id ?? null, wantId: null })}
            onAddress={(address) => ask({ address, pictures: null, clip: null })}
          />
          <Answered asked={asked} />
        </div>
      </section>
      <section className="gather-results" aria-label="Results">
        <Results
          asked={asked}
          group={group}
          onAsk={ask}
          onHeld={(asset) => open({ kind: 'held', asset })}
          openAsset={opened?.kind === 'held' ? opened.asset.id : null}
          onTakeHeld={(asset) => void takeHeld(asset)}
          onTakeAll={(pictures) => void take(pictures, false)}
        />
      </section>
      <aside className="gather-label" aria-label="Label">
        {want ? <WantNote want={want} /> : null}
        {opened?.kind === 'held' ? (
          <HeldLabel
            asset={opened.asset}
            rules={rules}
            onTake={page ? () => void takeHeld(opened.asset) : null}
          />
        ) : null}
        {opened?.kind === 'result' ? (
          <ResultLabel
            picture={opened.picture}
            rules={rules}
            want={want}
            licence={licence}
            onLicence={setLicence}
          >
            <TakeButtons
              page={page}
              want={want && !isFilled ? want : null}
              onTake={(forWant) => void take([opened.picture], forWant)}
            />
          </ResultLabel>
        ) : null}
        {opened === null ? <ClipperCard /> : null}
      </aside>
      {chosen.size > 0 ? (
        <div className="shelf-chosen gather-chosen" role="toolbar" aria-label="With the chosen pictures">
          <strong>{chosen.size} chosen</strong>
          <Button onClick={() => void take([...chosen.values()], false)}>
            {page ? 'To the tray' : 'To the shelf'}
          </Button>
          <Button onClick={() => setChosen(new Map())}>Clear</Button>
        </div>
      ) : null}
      <div className="gather-foot">
        <ComingIn />
      </div>
    </div>
  );
}

interface QuestionLineProps {
  readonly asked: GatherAsked;
  readonly onAsk: (change: Readonly<Record<string, string | null>>) => void;
}

/** The question; or, while an address is read, what is read and the way back. */
function QuestionLine({ asked, onAsk }: QuestionLineProps) {
  const sources = useQuery(sourcesQuery);
  if (asked.address || asked.pictures.length > 0 || asked.clipId) {
    return (
      <p className="sentence">
        Gather pictures from{' '}
        <strong>{asked.address ?? (asked.clipId ? 'a clipped page' : 'the pasted text')}</strong>{' '}
        <Button kind="link" onClick={() => onAsk({ address: null, pictures: null, clip: null })}>
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
function Answered({ asked }: { readonly asked: GatherAsked }) {
  const sources = useQuery(sourcesQuery);
  const wanted = (sources.data ?? []).filter(({ id }) => asked.from === null || id === asked.from);
  const client = useQueryClient();
  useIsFetching({ queryKey: ['source'] });
  if (asked.address || asked.clipId || asked.pictures.length > 0 || wanted.length < 2) return null;
  const answered = wanted.filter(({ id }) =>
    client
      .getQueriesData({ queryKey: ['source', id] })
      .some(([key, data]) => data !== undefined && isAskedNow(key, asked)),
  ).length;
  return (
    <span className="gather-answered soft" role="status">
      {answered} of {wanted.length} sources answered
    </span>
  );
}

/** Whether a query is part of what is asked now, and not of an earlier question. */
function isAskedNow(key: readonly unknown[], { question }: GatherAsked): boolean {
  return key[2] === 'albums' || JSON.stringify(key[2]) === JSON.stringify(question);
}

interface ResultsProps {
  readonly asked: GatherAsked;
  readonly group: Parameters<typeof SourceGroup>[0] extends infer P ? Omit<P, 'source'> : never;
  readonly openAsset: string | null;
  readonly onAsk: (change: Readonly<Record<string, string | null>>) => void;
  readonly onHeld: (asset: Asset) => void;
  readonly onTakeHeld: (asset: Asset) => void;
  readonly onTakeAll: (pictures: readonly SealedPicture[]) => void;
}

function Results({ asked, group, openAsset, onAsk, onHeld, onTakeHeld, onTakeAll }: ResultsProps) {
  const sources = useQuery(sourcesQuery);
  if (asked.clipId) return <ClipGroup clipId={asked.clipId} onTakeAll={onTakeAll} {...group} />;
  if (asked.address) return <ReadingGroup address={asked.address} onTakeAll={onTakeAll} {...group} />;
  if (asked.pictures.length > 0)
    return <PastedGroup addresses={asked.pictures} onTakeAll={onTakeAll} {...group} />;
  const wanted = (sources.data ?? []).filter(({ id }) => asked.from === null || id === asked.from);
  return (
    <>
      {asked.from === null ? (
        <ShelfGroup question={asked.question} openId={openAsset} onOpen={onHeld} onTake={onTakeHeld} />
      ) : null}
      {wanted.map((source) =>
        source.kind === 'drive' && asked.question.words === '' ? (
          <AlbumsGroup
            key={source.id}
            source={source}
            albumId={asked.albumId}
            onAlbum={(albumId) => onAsk({ album: albumId })}
            onTakeAll={onTakeAll}
            {...group}
          />
        ) : (
          <SourceGroup key={source.id} source={source} {...group} />
        ),
      )}
    </>
  );
}

function WantNote({ want }: { readonly want: Want }) {
  return (
    <div className="gather-want" data-filled={want.filledBy !== null}>
      <strong>
        {want.filledBy === null ? 'Wanted' : 'Filled'}: {want.purpose}
      </strong>
      <p className="soft">
        {SHAPE_WORDS[want.shape]}
        {want.leastWidth > 0 ? `, at least ${want.leastWidth} px wide` : ''}
      </p>
    </div>
  );
}

interface TakeProps {
  readonly page: ForPage | null;
  readonly want: Want | null;
  readonly onTake: (forWant: boolean) => void;
}

function TakeButtons({ page, want, onTake }: TakeProps) {
  return (
    <div className="gather-take">
      {want ? (
        <Button kind="action" onClick={() => onTake(true)}>
          Take it for this want
        </Button>
      ) : null}
      <Button kind={want ? 'plain' : 'action'} onClick={() => onTake(false)}>
        {page ? 'To the tray' : 'To the shelf'}
      </Button>
    </div>
  );
}

/** Files come in; what embeds goes where embeds are read; a page of the web is read here for its pictures. */
function useCarriedHere(
  ask: (change: Readonly<Record<string, string | null>>) => void,
  { pageId, wantId }: Pick<GatherAsked, 'pageId' | 'wantId'>,
  folder: string,
): (data: DataTransfer) => boolean {
  const hosts = useQuery(hostsQuery).data;
  const navigate = useNavigate();
  return (data) => {
    const carried = readCarried(data, hosts ?? { entries: [], decisions: [] });
    if (carried.kind === 'files')
      void filesOfDrop(data).then((files) => bringIn(files, folder, { pageId, wantId: null }));
    else if (carried.kind === 'embeds' || carried.kind === 'refused')
      navigate(
        `/embeds?${withAsked(new URLSearchParams(), { text: carriedText(data), page: pageId, want: wantId })}`,
      );
    else if (carried.kind === 'address') ask({ address: carried.address, pictures: null, clip: null });
    return carried.kind !== 'nothing';
  };
}
