import type { EmbedShape, HostEntry } from '#core/embed/host.ts';
import type { Embed } from '#core/embed/model.ts';
import type { Parameter } from '#core/embed/parameters.ts';
import { PERMISSION_WORDS, type Permission } from '#core/embed/permissions.ts';
import type { UnknownParameter } from '#core/embed/query.ts';
import type { Statement } from '#core/embed/say.ts';
import { readShape, sayShape } from '#core/embed/shape.ts';
import { titleOf } from '#core/embed/write.ts';
import type { Messages } from '#core/messages/table.ts';
import { MeasuredField } from '../form/measured-field.tsx';
import { Checkbox } from '../ui/checkbox.tsx';
import { cx } from '../ui/cx.ts';
import { Folded } from '../ui/folded.tsx';
import { ParameterField } from './parameter-field.tsx';

type ChangeEmbed = (change: Partial<Embed>, name: string) => void;

/** What is so of the embed, one sentence each, in the order in which it is asked. */
export function Statements({ statements }: { readonly statements: readonly Statement[] }) {
  return (
    <ol className="mb-4 border-t-2 border-ink [counter-reset:statement]">
      {statements.map(({ about, text, detail, isDue }) => (
        <li
          className="relative border-b border-line py-2 pl-7.5 [counter-increment:statement] before:absolute before:left-0 before:font-mono before:text-sm before:text-soft before:content-[counter(statement)] data-[due=true]:before:text-due"
          key={`${about} ${text}`}
          data-due={isDue}
        >
          <b className={cx('block font-strong', isDue && 'text-due')}>{text}</b>
          {detail ? <span className="block text-sm wrap-anywhere text-soft">{detail}</span> : null}
        </li>
      ))}
    </ol>
  );
}

interface EmbedFieldsProps {
  readonly embed: Embed;
  readonly entry: HostEntry | undefined;
  readonly settings: readonly Parameter[];
  readonly unknown: readonly UnknownParameter[];
  readonly notGiven: readonly Permission[];
  /** In the language of the pages that it goes out on. */
  readonly messages: Messages;
  readonly change: ChangeEmbed;
}

/** What a person may say of an embed: its title, its settings, its shape, what it gets beyond its needs. */
export function EmbedFields({
  embed,
  entry,
  settings,
  unknown,
  notGiven,
  messages,
  change,
}: EmbedFieldsProps) {
  const setParameter = (name: string, label: string, value: string | undefined) => {
    const { [name]: _before, ...others } = embed.parameters;
    change({ parameters: value === undefined ? others : { ...others, [name]: value } }, label.toLowerCase());
  };
  // It starts when it is clicked: to start by itself as well would be said twice.
  const shown = settings.filter(({ role }) => !(role === 'autoplay' && embed.loadOnClick));
  const field = (parameter: Parameter) => (
    <ParameterField
      key={parameter.name}
      parameter={parameter}
      value={embed.parameters[parameter.name]}
      onChange={(value) => setParameter(parameter.name, parameter.label, value)}
    />
  );
  return (
    <div className="grid gap-2.25">
      <TitleField key={embed.title} embed={embed} entry={entry} messages={messages} change={change} />
      {shown.filter(({ type }) => type !== 'switch').map(field)}
      <ShapeField key={JSON.stringify(embed.shape)} shape={embed.shape} change={change} />
      <div className="mt-1 grid gap-1.5 pl-36 max-narrow:pl-0">
        {shown.filter(({ type }) => type === 'switch').map(field)}
        {embed.carrier === 'frame' ? (
          <Checkbox
            checked={embed.loadOnClick}
            onChange={(isOn) => change({ loadOnClick: isOn }, 'load only when clicked')}
          >
            Load only when clicked
          </Checkbox>
        ) : null}
        {/* A link goes where it went: its whole query comes along. */}
        {(embed.carrier === 'link' ? [] : unknown).map(({ name, value, means }) => (
          <Checkbox
            key={name}
            checked={name in embed.kept}
            onChange={(isOn) => {
              const { [name]: _before, ...others } = embed.kept;
              change({ kept: isOn ? { ...others, [name]: value } : others }, `keeping ${name}`);
            }}
          >
            <span>
              Keep <code className="wrap-anywhere">{`${name}=${value}`}</code>
              {means === '' ? ', of which nobody knows what it does' : `: ${means.toLowerCase()}`}
            </span>
          </Checkbox>
        ))}
        {notGiven.length > 0 ? (
          <Folded words="Allow one of what it asked for">
            {notGiven.map((name) => (
              <Checkbox
                key={name}
                checked={embed.allowed.includes(name)}
                onChange={(isOn) =>
                  change({ allowed: withOrWithout(embed.allowed, name, isOn) }, 'what it may do')
                }
              >
                It may {PERMISSION_WORDS[name]}
              </Checkbox>
            ))}
          </Folded>
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
  readonly messages: Messages;
  readonly change: ChangeEmbed;
}

function TitleField({ embed, entry, messages, change }: TitleFieldProps) {
  return (
    <MeasuredField
      isBeside
      name="Title for screen readers"
      says={embed.title}
      placeholder={titleOf({ ...embed, title: '' }, entry, messages)}
      maxLength={300}
      read={(value) => ({ value })}
      onKeep={(title) => change({ title }, 'the title for screen readers')}
    />
  );
}

interface ShapeFieldProps {
  readonly shape: EmbedShape;
  readonly change: ChangeEmbed;
}

/** "16:9" keeps its shape at any width; "520" is a height in px. */
function ShapeField({ shape, change }: ShapeFieldProps) {
  return (
    <MeasuredField
      isBeside
      name="Shape, or height"
      says={sayShape(shape)}
      read={(text) => {
        const value = readShape(text);
        return value ? { value } : { fault: 'A shape is written as 16:9, a height as 520.' };
      }}
      onKeep={(read) => change({ shape: read }, 'the shape')}
    />
  );
}
