import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useRef, useState } from 'react';
import type { Target } from '#api/targets.ts';
import {
  chooseForm,
  EMBED_FORMS,
  type EmbedForm,
  FORM_WORDS,
  type FormCase,
  formFault,
} from '#core/embed/forms.ts';
import { type Embed, NO_FACTS } from '#core/embed/model.ts';
import { heightAt, writeEmbed } from '#core/embed/write.ts';
import { columnAt } from '#core/page/layout.ts';
import { Dimension } from '../measure/dimension.tsx';
import { useMeasure } from '../measure/told.ts';
import { Choice } from '../sentence/sentence.tsx';
import { Button } from '../ui/button.tsx';
import { copyText } from '../ui/copy.ts';
import { Field } from '../ui/field.tsx';
import { useWidth } from '../ui/use-width.ts';
import { embedPreviewQuery } from './embed-queries.ts';
import { useAfter } from './use-after.ts';
import { useSettled } from './use-settled.ts';

interface AsReadersProps {
  readonly of: FormCase;
  readonly targets: readonly Target[];
  readonly target: Target;
  readonly wish: EmbedForm | null;
  readonly onTarget: (id: string) => void;
  readonly onWish: (form: EmbedForm | null) => void;
  /** Whether its host has answered, or will not. */
  readonly isAsked: boolean;
  /** Where its host's picture of it can be looked at, or null. */
  readonly poster: string | null;
  /** What can be done with it. */
  readonly children: ReactNode;
}

/** The real thing, live in the target's column, and the code that goes out. */
export function AsReaders({
  of,
  targets,
  target,
  wish,
  onTarget,
  onWish,
  isAsked,
  poster,
  children,
}: AsReadersProps) {
  const { rules } = target;
  const [viewport, setViewport] = useState(() => String(Math.max(...rules.proofWidths)));
  const known = rules.proofWidths.includes(Number(viewport))
    ? Number(viewport)
    : Math.max(...rules.proofWidths);
  const form = chooseForm(of, wish);
  const { embed } = of;
  // The host's own picture would be asked for before anybody clicks; on the shelf it becomes a file of the site.
  const code = writeEmbed(form, { embed, target: rules, hosts: of.hosts, poster: null });
  return (
    <>
      <p className="text-3xl leading-normal font-stretch-94% max-narrow:text-xl">
        Live, as on{' '}
        <Choice
          about="Target"
          value={target.id}
          choices={targets.map(({ id, rules: { name } }) => [id, name] as const)}
          onChoose={onTarget}
        />{' '}
        at{' '}
        <Choice
          about="Width of the window"
          value={String(known)}
          choices={rules.proofWidths.map((width) => [String(width), `${width} px`] as const)}
          onChoose={setViewport}
        />
        : <FormChoice of={of} form={form} onWish={onWish} />.
      </p>
      <Live
        // What its host says shows at once; what a person changes, when they pause.
        key={isAsked ? 'asked' : 'unasked'}
        embed={embed}
        target={target}
        form={form}
        width={columnAt(rules, known)}
        isAsked={isAsked}
        poster={form === 'click' || form === 'poster' ? poster : null}
      />
      {children}
      <div>
        <Field name="The code">
          {(control) => (
            <textarea
              {...control}
              className="mb-2.5 field-sizing-content max-h-[14lh] min-h-[5lh] w-full resize-y border-t-2 border-ink bg-panel p-3 font-mono text-sm leading-4.75 font-normal wrap-anywhere text-ink"
              readOnly
              spellCheck={false}
              value={code}
              onFocus={(event) => event.currentTarget.select()}
            />
          )}
        </Field>
        <Button onClick={() => void copyText(code, 'The code')}>Copy code</Button>
      </div>
    </>
  );
}

const SHORT_WORDS: Readonly<Record<EmbedForm, string>> = {
  click: 'a poster that becomes the frame',
  frame: 'a frame',
  widget: 'a closed page of its own',
  player: 'the browser’s player',
  poster: 'a linked poster',
  link: 'a link in words',
};

interface FormChoiceProps {
  readonly of: FormCase;
  readonly form: EmbedForm;
  readonly onWish: (form: EmbedForm) => void;
}

/** The form that was chosen, and the others that are open here. */
function FormChoice({ of, form, onWish }: FormChoiceProps) {
  const open = EMBED_FORMS.filter((one) => formFault(one, of) === null);
  return (
    <Choice
      about="How it stands there"
      value={form}
      choices={open.map((one) => [one, one === form ? SHORT_WORDS[one] : FORM_WORDS[one]] as const)}
      onChoose={onWish}
    />
  );
}

interface LiveProps {
  readonly embed: Embed;
  readonly target: Target;
  readonly form: EmbedForm;
  /** Width in px of the column there. */
  readonly width: number;
  readonly isAsked: boolean;
  readonly poster: string | null;
}

/** A host that takes longer to answer is shown without what it would have said, so that it is not loaded twice in vain. */
const PATIENCE_MILLIS = 1500;

/** Until it has told how high it is: a link's line, and a poster of the usual shape. */
const LINK_PX = 90;
const POSTER_SHARE = 9 / 16;

function Live({ embed, target, form, width, isAsked, poster }: LiveProps) {
  const pane = useRef<HTMLDivElement>(null);
  const room = useWidth(pane);
  // What a person changes is waited for; what its host says of it comes once, and is shown at once.
  const said = useSettled({ ...embed, facts: NO_FACTS });
  const settled = { ...said, facts: embed.facts };
  const isLate = useAfter(PATIENCE_MILLIS);
  const preview = useQuery({
    ...embedPreviewQuery(settled, target.id, form),
    enabled: isAsked || isLate,
  });
  const scale = Math.min(1, room / width);
  const frame = useRef<HTMLIFrameElement>(null);
  const told = useMeasure(frame);
  const guessed =
    form === 'link' ? LINK_PX : form === 'poster' ? Math.round(width * POSTER_SHARE) : heightAt(embed, width);
  const height = told?.height || guessed;
  const shown = Math.round(width * scale);
  return (
    <div className="mt-3 mb-4.5" ref={pane}>
      <div className="relative h-6" style={{ width: shown }}>
        <Dimension
          ground="bg-ground"
          axis="x"
          words={scale < 1 ? `${width} px, shown at ${Math.round(scale * 100)}%` : `${width} px`}
          style={{ inset: '2px 0 auto 0' }}
        />
      </div>
      <div
        className="relative overflow-hidden bg-paper"
        style={{ width: shown, height: Math.round(height * scale) }}
      >
        {/* Seen while the live page is on its way, which shows the same. */}
        {poster ? <img className="absolute inset-0 size-full object-cover" src={poster} alt="" /> : null}
        {preview.data ? (
          <iframe
            ref={frame}
            className="relative origin-top-left"
            key={preview.data.address}
            title="As readers get it"
            src={preview.data.address}
            allow="fullscreen; autoplay; encrypted-media; picture-in-picture"
            sandbox="allow-scripts allow-same-origin allow-forms allow-popups allow-presentation"
            style={{ width, height, transform: `scale(${scale})` }}
          />
        ) : null}
      </div>
    </div>
  );
}
