import { useState } from 'react';
import type { EmbedShape, HostEntry } from '#core/embed/host.ts';
import type { Embed } from '#core/embed/model.ts';
import type { Parameter } from '#core/embed/parameters.ts';
import { PERMISSION_WORDS, type Permission } from '#core/embed/permissions.ts';
import type { UnknownParameter } from '#core/embed/query.ts';
import type { Statement } from '#core/embed/say.ts';
import { readShape, sayShape } from '#core/embed/shape.ts';
import { titleOf } from '#core/embed/write.ts';
import { Field } from '../ui/field.tsx';
import { ParameterField } from './parameter-field.tsx';

type ChangeEmbed = (change: Partial<Embed>, name: string) => void;

/** What is so of the embed, one sentence each, in the order in which it is asked. */
export function Statements({ statements }: { readonly statements: readonly Statement[] }) {
  return (
    <ol className="statements">
      {statements.map(({ about, text, detail, isDue }) => (
        <li key={`${about} ${text}`} data-due={isDue}>
          <b className="statement-text">{text}</b>
          {detail ? <span className="statement-detail">{detail}</span> : null}
        </li>
      ))}
    </ol>
  );
}

interface EmbedFieldsProps {
  readonly embed: Embed;
  readonly entry: HostEntry | undefined;
  readonly unknown: readonly UnknownParameter[];
  readonly notGiven: readonly Permission[];
  readonly change: ChangeEmbed;
}

/** What a person may say of an embed: its title, its settings, its shape, what it gets beyond its needs. */
export function EmbedFields({ embed, entry, unknown, notGiven, change }: EmbedFieldsProps) {
  const setParameter = (name: string, label: string, value: string | undefined) => {
    const { [name]: _before, ...others } = embed.parameters;
    change({ parameters: value === undefined ? others : { ...others, [name]: value } }, label.toLowerCase());
  };
  const parameters = entry?.parameters ?? [];
  // It starts when it is clicked: to start by itself as well would be said twice.
  const shown = parameters.filter(({ role }) => !(role === 'autoplay' && embed.onClick));
  const field = (parameter: Parameter) => (
    <ParameterField
      key={parameter.name}
      parameter={parameter}
      value={embed.parameters[parameter.name]}
      onChange={(value) => setParameter(parameter.name, parameter.label, value)}
    />
  );
  return (
    <div className="embed-fields">
      <TitleField key={embed.title} embed={embed} entry={entry} change={change} />
      {shown.filter(({ type }) => type !== 'switch').map(field)}
      <ShapeField key={JSON.stringify(embed.shape)} shape={embed.shape} change={change} />
      <div className="embed-checks">
        {shown.filter(({ type }) => type === 'switch').map(field)}
        {embed.carrier === 'frame' ? (
          <label className="check">
            <input
              type="checkbox"
              checked={embed.onClick}
              onChange={(event) => change({ onClick: event.target.checked }, 'load only when clicked')}
            />
            Load only when clicked
          </label>
        ) : null}
        {unknown.map(({ name, value }) => (
          <label key={name} className="check">
            <input
              type="checkbox"
              checked={name in embed.kept}
              onChange={(event) => {
                const { [name]: _before, ...others } = embed.kept;
                change(
                  { kept: event.target.checked ? { ...others, [name]: value } : others },
                  `keeping ${name}`,
                );
              }}
            />
            <span>
              Keep <code>{`${name}=${value}`}</code>, of which nobody knows what it does
            </span>
          </label>
        ))}
        {notGiven.length > 0 ? (
          <details>
            <summary>Allow one of what it asked for</summary>
            {notGiven.map((name) => (
              <label key={name} className="check">
                <input
                  type="checkbox"
                  checked={embed.allowed.includes(name)}
                  onChange={(event) =>
                    change(
                      { allowed: withOrWithout(embed.allowed, name, event.target.checked) },
                      'what it may do',
                    )
                  }
                />
                It may {PERMISSION_WORDS[name]}
              </label>
            ))}
          </details>
        ) : null}
      </div>
    </div>
  );
}

function withOrWithout(names: readonly Permission[], name: Permission, isIn: boolean): Permission[] {
  return isIn ? [...names, name] : names.filter((one) => one !== name);
}

interface TitleFieldProps {
  readonly embed: Embed;
  readonly entry: HostEntry | undefined;
  readonly change: ChangeEmbed;
}

function TitleField({ embed, entry, change }: TitleFieldProps) {
  const [title, setTitle] = useState(embed.title);
  const keep = () => {
    if (title.trim() !== embed.title) change({ title: title.trim() }, 'the title for screen readers');
  };
  return (
    <Field name="Title for screen readers">
      {(control) => (
        <input
          {...control}
          className="input"
          maxLength={300}
          placeholder={titleOf({ ...embed, title: '' }, entry)}
          value={title}
          onChange={(event) => setTitle(event.target.value)}
          onBlur={keep}
          onKeyDown={(event) => event.key === 'Enter' && keep()}
        />
      )}
    </Field>
  );
}

interface ShapeFieldProps {
  readonly shape: EmbedShape;
  readonly change: ChangeEmbed;
}

/** "16:9" keeps its shape at any width; "520" is a height in px. */
function ShapeField({ shape, change }: ShapeFieldProps) {
  const shown = sayShape(shape);
  const [text, setText] = useState(shown);
  const [fault, setFault] = useState<string | null>(null);
  const keep = () => {
    if (text.trim() === shown) return;
    const read = readShape(text);
    setFault(read ? null : 'A shape is written as 16:9, a height as 520.');
    if (read) change({ shape: read }, 'the shape');
  };
  return (
    <Field name="Shape, or height" fault={fault}>
      {(control) => (
        <input
          {...control}
          className="input mono"
          value={text}
          onChange={(event) => setText(event.target.value)}
          onBlur={keep}
          onKeyDown={(event) => event.key === 'Enter' && keep()}
        />
      )}
    </Field>
  );
}
