import { type FormEvent, useEffect, useRef, useState } from 'react';
import type { Severity } from '#core/proof/codes.ts';
import type { Remedy } from '#core/proof/finding.ts';
import { sayFailure } from '../api/client.ts';
import { Button } from '../ui/button.tsx';
import { Fault } from '../ui/fault.tsx';
import { Field } from '../ui/field.tsx';
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
    <aside className="findings" aria-label="Findings">
      <h2>{headline(numbered)}</h2>
      <p className="soft">
        {numbered.length === 0
          ? 'Nothing was found. It can go out as it is.'
          : 'Everything else on this page is in order.'}
      </p>
      <ol>
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
          <li className="mended" role="status">
            <i aria-hidden="true">✓</i>
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
      await onApply(remedy, finding.sentence);
    } catch (error) {
      setFault(sayFailure(error));
    }
  };
  return (
    <li className="finding" data-chosen={isChosen} ref={line}>
      <button
        type="button"
        className="finding-number"
        data-severity={finding.severity}
        aria-label={`Show finding ${number} on the page`}
        aria-pressed={isChosen}
        onClick={() => onChoose(isChosen ? null : number)}
      >
        {number}
      </button>
      <div className="finding-body">
        <h3>{finding.sentence}</h3>
        <p>{finding.why}</p>
        <p className="soft">
          {SEVERITY_WORDS[finding.severity]}{' '}
          {finding.viewports.length > 0 ? `At ${finding.viewports.join(', ')} px.` : ''}
        </p>
        {isEditable && writing === null && finding.remedies.length > 0 ? (
          <div className="finding-remedies">
            {finding.remedies.map((remedy, at) => (
              <Button
                key={remedy.words}
                kind={at === 0 ? 'action' : 'plain'}
                onClick={() => void act(remedy)}
              >
                {remedy.words}
              </Button>
            ))}
          </div>
        ) : null}
        {writing ? (
          <WriteAlt
            onCancel={() => setWriting(null)}
            onWrite={(text) => onWrite(writing, text, finding.sentence)}
          />
        ) : null}
        <Fault says={fault} />
      </div>
    </li>
  );
}

function WriteAlt({
  onWrite,
  onCancel,
}: {
  readonly onWrite: (text: string) => Promise<void>;
  readonly onCancel: () => void;
}) {
  const [text, setText] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    try {
      await onWrite(text.trim());
    } catch (error) {
      setFault(sayFailure(error));
    }
  };
  return (
    <form onSubmit={(event) => void submit(event)}>
      <Field name="Alt text" fault={fault} hint="What it shows, in a plain sentence.">
        {(control) => (
          <textarea
            {...control}
            className="input"
            required
            maxLength={1000}
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
        )}
      </Field>
      <div className="finding-remedies">
        <Button kind="action" type="submit">
          Save words
        </Button>
        <Button onClick={onCancel}>Leave it</Button>
      </div>
    </form>
  );
}
