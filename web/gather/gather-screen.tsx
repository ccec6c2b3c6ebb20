import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { Asset } from '#api/assets.ts';
import type { SealedPicture } from '#api/gather.ts';
import type { Hosts } from '#core/embed/host.ts';
import type { Want } from '#core/page/model.ts';
import type { HouseRules } from '#core/page/target.ts';
import { strictest } from '#core/page/target.ts';
import type { LicenceId } from '#core/rights/licences.ts';
import { sayFailure } from '../api/client.ts';
import { targetsQuery } from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { bringIn, putOnTray } from '../arrivals/arrivals.ts';
import { mayCarry } from '../arrivals/carried-text.ts';
import { ComingIn } from '../arrivals/coming-in.tsx';
import { gather } from '../arrivals/gatherings.ts';
import { useDrop } from '../arrivals/use-drop.ts';
import { usePaste } from '../arrivals/use-paste.ts';
import { hostsQuery } from '../embeds/embed-queries.ts';
import { FootPane, HeadPane, PANES_LOOK, SidePane } from '../frame/panes.tsx';
import { LABEL_PX, Split } from '../frame/split.tsx';
import { sayPageTitle } from '../pages/say-title.ts';
import { Button } from '../ui/button.tsx';
import { ChosenToolbar } from '../ui/chosen-toolbar.tsx';
import { cx } from '../ui/cx.ts';
import { toast } from '../ui/toast.ts';
import { ClipperCard } from './clipper-card.tsx';
import { readAsked, withAsked } from './gather-address.ts';
import { gatherPageQuery, sourcesQuery } from './gather-queries.ts';
import { HeldLabel } from './held-label.tsx';
import { OwnMachine } from './own-machine.tsx';
import { Answered, QuestionLine } from './question-line.tsx';
import { ResultLabel } from './result-label.tsx';
import { Results } from './results.tsx';
import { idOf, titleOf } from './source-group.tsx';
import { TakeButtons, WantNote } from './take-for.tsx';
import { useCarriedHere } from './use-carried-here.ts';

export function GatherScreen() {
  const [params] = useSearchParams();
  const pageId = params.get('page');
  const page = useQuery({ ...gatherPageQuery(pageId ?? ''), enabled: pageId !== null });
  const targets = useQuery(targetsQuery);
  const sources = useQuery(sourcesQuery);
  const hosts = useQuery(hostsQuery);
  if (!targets.data || !sources.data || !hosts.data || (pageId !== null && !page.data))
    return <Unanswered isScreen of={[targets, sources, hosts, page]} />;
  const rules = page.data?.target.rules ?? strictest(targets.data)?.rules;
  if (!rules) return null;
  return (
    <Gathering
      key={pageId}
      rules={rules}
      hosts={hosts.data}
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

/** What the label is of, in a word or two. */
function sayOpened(opened: Opened): string {
  if (opened === null) return 'no picture';
  return opened.kind === 'held' ? opened.asset.label.title || opened.asset.stem : titleOf(opened.picture);
}

interface GatheringProps {
  readonly rules: HouseRules;
  readonly hosts: Hosts;
  readonly page: ForPage | null;
}

function Gathering({ rules, hosts, page }: GatheringProps) {
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
  const takeCarried = useCarriedHere(ask, asked, { folder, hosts });
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
    <div className={cx(PANES_LOOK, 'relative')} {...drop.handlers}>
      <HeadPane className="pt-3 pb-2" aria-label="Question">
        <h1 className="sr-only">Gather</h1>
        <QuestionLine asked={asked} onAsk={ask} />
        <div className="mt-0.5 flex flex-wrap items-baseline gap-x-3.5 gap-y-0.5">
          {page ? (
            <span>
              <span className="text-soft">for</span>{' '}
              <Link to={`/pages/${page.id}`}>
                <strong>{sayPageTitle(page.title)}</strong>
              </Link>
            </span>
          ) : null}
          <OwnMachine
            folder={folder}
            onFolder={setFolder}
            onFiles={(files) => bringIn(files, folder, { pageId: page?.id ?? null, wantId: null })}
            onAddress={(address) => ask({ address, clip: null })}
          />
          <Answered asked={asked} />
        </div>
      </HeadPane>
      <Split
        id="gather"
        firstPlace="results"
        panes={[
          {
            id: 'results',
            name: 'the results',
            says: want ? want.purpose : 'all sources',
            content: (
              <section
                className={cx(
                  'overflow-auto px-4.5 pt-3 pb-6 max-narrow:p-2.5',
                  drop.isOver && 'inset-ring-3 inset-ring-action',
                )}
                aria-label="Results"
              >
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
            ),
          },
          {
            id: 'side',
            name: 'the label',
            width: { usual: LABEL_PX, least: 260 },
            says: sayOpened(opened),
            content: (
              <SidePane className="flex flex-col" aria-label="Label">
                {want && page ? <WantNote want={want} page={page} /> : null}
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
                      hasPage={page !== null}
                      want={want && !isFilled ? want : null}
                      onTake={(forWant) => void take([opened.picture], forWant)}
                    />
                  </ResultLabel>
                ) : null}
                {opened === null ? <ClipperCard /> : null}
              </SidePane>
            ),
          },
        ]}
      />
      {chosen.size > 0 ? (
        <ChosenToolbar about="With the chosen pictures" count={chosen.size}>
          <Button kind="bar" onClick={() => void take([...chosen.values()], false)}>
            {page ? 'To the tray' : 'To the shelf'}
          </Button>
          <Button kind="bar" onClick={() => setChosen(new Map())}>
            Clear
          </Button>
        </ChosenToolbar>
      ) : null}
      <FootPane>
        <ComingIn />
      </FootPane>
    </div>
  );
}
