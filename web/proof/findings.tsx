import { useEffect, useRef, useState } from 'react';
import * as v from 'valibot';
import type { Severity } from '#core/proof/codes.ts';
import type { Remedy } from '#core/proof/finding.ts';
import { sayFinding, sayRemedy } from '#core/proof/say.ts';
import { sayFailure } from '../api/client.ts';
import { Form, Lines } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { Button } from '../ui/button.tsx';
import { Fault } from '../ui/fault.tsx';
import { stepBack } from '../undo/undo-keys.tsx';
import type { NumberedFinding } from './frame.tsx';

interface FindingsProps {
  readonly numbered: readonly NumberedFinding[];
  readonly chosen: number | null;
  readonly mended: string | null;
  readonly isEditable: boolean;
  readonly onChoose: (number: number | null) => void;
  readonly onApply: (remedy: Remedy, words: string) => Promise<void>;
  readonly onWrite: (assetId: string, text: string, words: string) => Promise<void>;
}

/** What is wrong or at risk, worst first, each with the change that mends it. */
export function Findings({
  numbered,
  chosen,
  mended,
  isEditable,
  onChoose,
  onApply,
  onWrite,
}: FindingsProps) {
  return (
    <aside className="overflow-auto bg-panel px-4 pt-3 pb-7.5" aria-label="Findings">
      <h2 className="text-lg">{headline(numbered)}</h2>
      <p className="text-soft">
        {numbered.length === 0
          ? 'Nothing was found. It can go out as it is.'
          : 'Everything else on this page is in order.'}
      </p>
      <ol className="mt-2.5">
        {numbered.map((one) => (
          <FindingLine
            key={`${one.finding.code} ${JSON.stringify(one.finding.place)}`}
            one={one}
            isChosen={one.number === chosen}
            isEditable={isEditable}
            onChoose={onChoose}
            onApply={onApply}
            onWrite={onWrite}
          />
        ))}
        {mended ? (
          <li
            className="grid grid-cols-[24px_minmax(0,1fr)] gap-3 border-t border-hairline py-2.75 text-soft"
            role="status"
          >
            <i className="size-5 bg-soft text-center text-panel not-italic" aria-hidden="true">
              ✓
            </i>
            <span>
              Mended just now: {mended}{' '}
              <Button kind="link" onClick={() => void stepBack()}>
                Undo
              </Button>
            </span>
          </li>
        ) : null}
      </ol>
    </aside>
  );
}

function headline(numbered: readonly NumberedFinding[]): string {
  const count = (severity: Severity) =>
    numbered.filter(({ finding }) => finding.severity === severity).length;
  const stops = count('stops');
  const others = numbered.length - stops;
  const stopping =
    stops === 0
      ? 'Nothing stops sending'
      : stops === 1
        ? '1 thing stops sending'
        : `${stops} things stop sending`;
  if (others === 0) return stopping;
  return `${stopping}, ${others === 1 ? '1 is' : `${others} are`} worth a look`;
}

const SEVERITY_WORDS: Readonly<Record<Severity, string>> = {
  stops: 'Stops sending.',
  mend: 'Should be mended.',
  note: 'Worth knowing.',
};

interface LineProps {
  readonly one: NumberedFinding;
  readonly isChosen: boolean;
  readonly isEditable: boolean;
  readonly onChoose: (number: number | null) => void;
  readonly onApply: FindingsProps['onApply'];
  readonly onWrite: FindingsProps['onWrite'];
}

function FindingLine({ one, isChosen, isEditable, onChoose, onApply, onWrite }: LineProps) {
  const { number, finding } = one;
  const { sentence, why } = sayFinding(finding);
  const [writing, setWriting] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const line = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (isChosen) line.current?.scrollIntoView({ block: 'nearest' });
  }, [isChosen]);
  const act = async (remedy: Remedy) => {
    setFault(null);
    if (remedy.kind === 'write-alt') {
      setWriting(remedy.assetId);
      return;
    }
    try {
      await onApply(remedy, sentence);
    } catch (error) {
      setFault(sayFailure(error));
    }
  };
  return (
    <li
      className="grid grid-cols-[24px_minmax(0,1fr)] gap-x-3 gap-y-1 border-t border-hairline pt-2.75 pb-3.25 data-[chosen=true]:bg-action-soft data-[chosen=true]:shadow-[-16px_0_0_var(--color-action-soft),16px_0_0_var(--color-action-soft)]"
      data-chosen={isChosen}
      ref={line}
    >
      <button
        type="button"
        className="size-6 bg-ink text-center font-sans text-sm leading-6 font-semibold text-panel data-[severity=stops]:bg-measure data-[severity=stops]:text-white"
        data-severity={finding.severity}
        aria-label={`Show finding ${number} on the page`}
        aria-pressed={isChosen}
        onClick={() => onChoose(isChosen ? null : number)}
      >
        {number}
      </button>
      <div className="min-w-0">
        <h3 className="text-md leading-flat">{sentence}</h3>
        <p>{why}</p>
        <p className="text-soft">
          {SEVERITY_WORDS[finding.severity]}{' '}
          {finding.viewports.length > 0 ? `At ${finding.viewports.join(', ')} px.` : ''}
        </p>
        {isEditable && writing === null && finding.remedies.length > 0 ? (
          <div className="mt-2 flex flex-wrap gap-1.5">
            {finding.remedies.map((remedy, at) => (
              <Button
                className="min-h-6.5 px-2.5 py-0.5"
                key={sayRemedy(remedy)}
                kind={at === 0 ? 'action' : 'plain'}
                onClick={() => void act(remedy)}
              >
                {sayRemedy(remedy)}
              </Button>
            ))}
          </div>
        ) : null}
        {writing ? (
          <WriteAlt onCancel={() => setWriting(null)} onWrite={(text) => onWrite(writing, text, sentence)} />
        ) : null}
        <Fault says={fault} />
      </div>
    </li>
  );
}

const AltTextSchema = v.object({
  text: v.pipe(v.string(), v.trim(), v.minLength(1, 'Say what it shows.'), v.maxLength(1000)),
});

function WriteAlt({
  onWrite,
  onCancel,
}: {
  readonly onWrite: (text: string) => Promise<void>;
  readonly onCancel: () => void;
}) {
  const form = useSaveForm({
    schema: AltTextSchema,
    defaults: { text: '' },
    refusedAt: 'text',
    save: ({ text }) => onWrite(text),
  });
  return (
    <Form of={form} className="mt-2 gap-1.5">
      <Lines
        of={form}
        name="text"
        label="Alt text"
        hint="What it shows, in a plain sentence."
        maxLength={1000}
      />
      <div className="mt-2 flex flex-wrap gap-1.5">
        <Button className="min-h-6.5 px-2.5 py-0.5" kind="action" type="submit">
          Save words
        </Button>
        <Button className="min-h-6.5 px-2.5 py-0.5" onClick={onCancel}>
          Cancel
        </Button>
      </div>
    </Form>
  );
}
