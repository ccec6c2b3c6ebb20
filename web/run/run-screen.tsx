import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { type RunPreview, RunSchema } from '#api/runs.ts';
import type { Target } from '#api/targets.ts';
import { folderPath } from '#core/naming/folders.ts';
import type { RunOrder } from '#core/run/order.ts';
import { ApiProblem, requestJson, sayFailure } from '../api/client.ts';
import { mostSizes, queryClient, targetsQuery } from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { ComingIn } from '../arrivals/coming-in.tsx';
import { useOffer } from '../frame/commands.ts';
import { FootPane, HeadPane, PANES_LOOK } from '../frame/panes.tsx';
import { Choice, PART_LOOK, Sentence } from '../sentence/sentence.tsx';
import { Button, LinkButton } from '../ui/button.tsx';
import { cx } from '../ui/cx.ts';
import { Empty } from '../ui/empty.tsx';
import { toast } from '../ui/toast.ts';
import { addToDraft, putDraft, useDraft } from './draft.ts';
import { FORMAT_WORDS, FormatCard } from './format-card.tsx';
import { NameCard } from './name-card.tsx';
import { PlaceCard } from './place-card.tsx';
import { RunCard } from './run-card.tsx';
import { RunPanes } from './run-panes.tsx';
import { runPreviewQuery } from './run-queries.ts';
import { RunTable } from './run-table.tsx';
import { countToLookAt, listed, pictures, sayNaming, saySizes, sayTotals } from './run-words.ts';
import { SizesCard } from './sizes-card.tsx';
import { useDropIntoRun } from './use-drop-into-run.ts';

/** Many pieces in one go: what is to be done with them, and every piece before and after, before anything is done. */
export function RunScreen() {
  const draft = useDraft();
  const targets = useQuery(targetsQuery);
  const target = targets.data?.find(({ id }) => id === draft?.targetId) ?? mostSizes(targets.data ?? []);
  const drop = useDropIntoRun((ids) => target && addToDraft(ids, target));
  if (!target) return <Unanswered isScreen of={targets} />;
  return (
    <div
      className={cx(PANES_LOOK, drop.isOver && 'outline-3 -outline-offset-6 outline-action outline-dashed')}
      {...drop.handlers}
    >
      {draft && draft.pieces.length > 0 ? (
        <Draft order={draft} target={target} targets={targets.data ?? []} />
      ) : (
        <div className="min-h-0 min-w-0">
          <Empty>
            <h1 className="mb-1 text-xl text-ink">A run does the same to many pictures at once</h1>
            <p>
              Sizes, formats, names, folders and a recipe, with every picture before and after. Choose
              pictures on the shelf and press Run, or drop files or a whole folder here.
            </p>
            <p className="mt-2.5 flex flex-wrap items-center gap-x-4 gap-y-2">
              <LinkButton kind="action" to="/shelf">
                To the shelf
              </LinkButton>
              <Link to="/shelf/runs">Earlier runs</Link>
            </p>
          </Empty>
        </div>
      )}
      <FootPane>
        <ComingIn />
      </FootPane>
    </div>
  );
}

interface DraftProps {
  readonly order: RunOrder;
  readonly target: Target;
  readonly targets: readonly Target[];
}

function Draft({ order, target, targets }: DraftProps) {
  const preview = useQuery(runPreviewQuery(order));
  const change = (part: Partial<RunOrder>) => putDraft({ ...order, ...part });
  const [faulty, setFaulty] = useState<ReadonlySet<string>>(new Set());
  const { rules } = target;
  const changeRow = (id: string, part: RunOrder['rows'][string]) =>
    change({ rows: { ...order.rows, [id]: { ...order.rows[id], ...part } } });
  return (
    <>
      <HeadPane className="pb-3" aria-label="The run">
        <h1 className="sr-only">A run over many pictures</h1>
        <RunSentence order={order} target={target} targets={targets} onChange={change} />
        <div className="mt-1.5 flex min-h-8.5 flex-wrap items-center gap-x-4.5 gap-y-1 text-soft">
          <span role="status">{preview.data ? sayTotals(preview.data, order) : 'Looks at the pictures'}</span>
          {preview.data && countToLookAt(preview.data) > 0 ? (
            <strong className="text-due">
              {countToLookAt(preview.data) === 1
                ? '1 needs a look'
                : `${countToLookAt(preview.data)} need a look`}
            </strong>
          ) : null}
          {preview.data && preview.data.gone > 0 ? (
            <span>{pictures(preview.data.gone)} gone from the shelf since</span>
          ) : null}
          {preview.error ? (
            <span className="text-due" role="alert">
              {sayFailure(preview.error)}
            </span>
          ) : null}
          <BeginButtons
            order={order}
            preview={preview.data}
            isFresh={!preview.isPlaceholderData}
            faulty={faulty.size}
          />
        </div>
      </HeadPane>
      <RunPanes
        rows={
          preview.data ? (
            <RunTable
              rows={preview.data.rows}
              edit={{
                isLeftOut: (id) => order.rows[id]?.leftOut === true,
                onLeftOut: (id, leftOut) => changeRow(id, { leftOut }),
                onFault: (id, isFaulty) =>
                  setFaulty((before) => {
                    const next = new Set(before);
                    if (isFaulty) next.add(id);
                    else next.delete(id);
                    return next;
                  }),
                onStem: (id, stem) => {
                  const { stem: _before, ...row } = order.rows[id] ?? {};
                  change({ rows: { ...order.rows, [id]: stem === null ? row : { ...row, stem } } });
                },
              }}
            />
          ) : null
        }
        about="What is done"
        side={
          <>
            <SizesCard order={order} change={change} presets={rules.cutPresets} />
            <FormatCard order={order} change={change} rules={rules} />
            <NameCard order={order} change={change} rules={rules} preview={preview.data} />
            <PlaceCard order={order} change={change} />
            <RunCard id="run-stays" title="What stays">
              <p>
                {order.into === 'zip'
                  ? 'The shelf, as it is. Names, folder and recipe hold for the files alone.'
                  : 'The originals, as they are. One step back undoes the whole run.'}
              </p>
            </RunCard>
          </>
        }
      />
    </>
  );
}

interface RunSentenceProps extends DraftProps {
  readonly onChange: (part: Partial<RunOrder>) => void;
}

/** What the run does, in a sentence; its parts lead to where they are said. */
function RunSentence({ order, target, targets, onChange }: RunSentenceProps) {
  const { cutPresets } = target.rules;
  const sizes = saySizes(order.sizes, cutPresets) || 'no size';
  const upright = order.portrait
    ? `, upright ones to ${saySizes(order.portrait, cutPresets) || 'no size'}`
    : '';
  const isSized = order.sizes.length > 0 || (order.portrait?.length ?? 0) > 0;
  return (
    <Sentence>
      {isSized ? 'Size' : 'Rename'}{' '}
      <Link className="font-strong" to="/shelf">
        {pictures(order.pieces.length)}
      </Link>{' '}
      for{' '}
      <Choice
        about="Target"
        value={target.id}
        choices={targets.map(({ id, rules }) => [id, rules.name] as const)}
        onChoose={(targetId) => onChange({ targetId })}
      />
      {isSized ? (
        <>
          {' '}
          to{' '}
          <Lead to="run-sizes">
            {sizes}
            {upright}
          </Lead>{' '}
          as <Lead to="run-formats">{listed(order.formats.map((format) => FORMAT_WORDS[format]))}</Lead>, name
          them
        </>
      ) : (
        <>
          {' '}
          in <Lead to="run-sizes">the sizes they have</Lead>: name them
        </>
      )}{' '}
      <Lead to="run-names">{sayNaming(order.naming)}</Lead>
      {order.recipe ? (
        <>
          , prepare them <Lead to="run-place">like {order.recipe.from}</Lead>
        </>
      ) : null}
      , and{' '}
      <Lead to="run-place">
        {order.folder === null
          ? 'leave them in their folders'
          : `put them in ${folderPath(order.folder).replaceAll('/', ' / ')}`}
      </Lead>{' '}
      <Choice
        about="Where it goes"
        value={order.into}
        choices={[
          ['shelf', 'on the shelf'],
          ['zip', 'in a ZIP'],
        ]}
        onChoose={(into) => onChange({ into })}
      />
      .
    </Sentence>
  );
}

/** A part of the sentence that is said in a card: pressed, the card is in sight and its first control has the focus. */
function Lead({ to, children }: { readonly to: string; readonly children: ReactNode }) {
  const lead = () => {
    const card = document.getElementById(to)?.closest('.card');
    card?.scrollIntoView({ block: 'nearest' });
    card?.querySelector<HTMLElement>('button, input, select')?.focus();
  };
  return (
    <button type="button" className={PART_LOOK} onClick={lead}>
      {children}
    </button>
  );
}

interface BeginButtonsProps {
  readonly order: RunOrder;
  readonly preview: RunPreview | undefined;
  /** Whether the preview is of the order as it stands. */
  readonly isFresh: boolean;
  /** How many names are typed that are none. */
  readonly faulty: number;
}

function BeginButtons({ order, preview, isFresh, faulty }: BeginButtonsProps) {
  const navigate = useNavigate();
  const [isBeginning, setBeginning] = useState(false);
  const parts = preview?.rows.filter(({ leftOut }) => leftOut === null).length ?? 0;
  const begin = async () => {
    if (!preview) return;
    setBeginning(true);
    try {
      const body = { order, seen: preview.seen };
      const run = await requestJson('post /runs', RunSchema, { body });
      putDraft(null);
      queryClient.setQueryData(['run', run.id], run);
      void queryClient.invalidateQueries({ queryKey: ['runs'] });
      navigate(`/shelf/runs/${run.id}`);
    } catch (error) {
      toast.error(sayFailure(error));
      if (error instanceof ApiProblem && error.status === 409)
        void queryClient.invalidateQueries({ queryKey: ['run-preview'] });
    } finally {
      setBeginning(false);
    }
  };
  const isReady = parts > 0 && !isBeginning && isFresh && faulty === 0;
  const words = order.into === 'zip' ? `Pack ${parts}` : `Run ${parts}`;
  useOffer([
    ...(isReady ? [{ words, act: () => void begin() }] : []),
    { words: 'Cancel this run', act: () => putDraft(null) },
  ]);
  return (
    <span className="ml-auto flex items-center gap-2">
      {faulty > 0 ? (
        <span className="text-due" role="status">
          {faulty === 1 ? '1 name is not right yet.' : `${faulty} names are not right yet.`}
        </span>
      ) : null}
      <Button kind="quiet" onClick={() => putDraft(null)}>
        Cancel
      </Button>
      <Button kind="action" disabled={!isReady} onClick={() => void begin()}>
        {words}
      </Button>
    </span>
  );
}
