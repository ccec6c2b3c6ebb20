import type { Asset } from '#api/assets.ts';
import { EMBED_FORMS, type EmbedForm, FORM_WORDS, formFault, sayFormFault } from '#core/embed/forms.ts';
import { entryById, trustOf } from '#core/embed/host.ts';
import type { Parameter } from '#core/embed/parameters.ts';
import { sayWhatItIs } from '#core/embed/say.ts';
import { settingsOf } from '#core/embed/settings.ts';
import { embedHere, formCase, formHere, withSetting } from '#core/page/embed-here.ts';
import type { HeldEmbed } from '#core/page/piece.ts';
import type { HouseRules } from '#core/page/target.ts';
import { ParameterField } from '../embeds/parameter-field.tsx';
import { Button, LinkButton } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { Select } from '../ui/select.tsx';
import { LabelRow, type Use } from './row.tsx';

interface EmbedRowProps {
  readonly asset: Pick<Asset, 'id'>;
  readonly held: HeldEmbed;
  readonly rules: HouseRules;
  readonly use: Use | null;
  readonly isEditable: boolean;
}

/** What is embedded, how it stands on this page, and the other ways that are open. */
export function EmbedRow({ asset, held, rules, use, isEditable }: EmbedRowProps) {
  const { hosts } = held;
  const embed = use ? embedHere(use.placement, held) : held.embed;
  const entry = entryById(embed.host, hosts);
  const of = formCase(rules, held);
  const form = formHere(rules, use?.placement ?? { form: null }, held);
  const closed = embed.carrier === 'frame' ? formFault('frame', of) : null;
  return (
    <LabelRow
      name="Embed"
      way={
        <LinkButton
          className="min-h-6 text-sm"
          kind="link"
          to={`/embeds?piece=${asset.id}${use ? `&page=${use.pageId}&use=${use.placement.id}` : ''}`}
          aria-label="Open it in Embeds"
        >
          Open
        </LinkButton>
      }
    >
      <p>{sayWhatItIs(embed, entry, trustOf(embed.address, hosts))}</p>
      {closed ? <p className="text-due">{sayFormFault(closed)}</p> : null}
      {use && isEditable ? (
        <Field name="Stands here as">
          {(control) => (
            <Select
              {...control}
              value={form}
              choices={EMBED_FORMS.filter((one) => formFault(one, of) === null).map(
                (one) => [one, FORM_WORDS[one]] as const,
              )}
              onChoose={(chosen) => use.change({ form: chosen }, `showing it as ${SHORT[chosen]}`)}
            />
          )}
        </Field>
      ) : (
        <p>{FORM_WORDS[form]}.</p>
      )}
      {use && isEditable ? <SettingsHere held={held} use={use} /> : null}
    </LabelRow>
  );
}

interface SettingsHereProps {
  readonly held: HeldEmbed;
  readonly use: Use;
}

/** Where it begins and whether captions are on, for this page alone. */
function SettingsHere({ held, use }: SettingsHereProps) {
  const here = embedHere(use.placement, held);
  const { parameters } = here;
  const { settings } = use.placement;
  const shown = settingsOf(here, held.hosts, held.embed.parameters).filter(isSetHere);
  return (
    <>
      {shown.map((parameter) => (
        <ParameterField
          key={parameter.name}
          parameter={parameter}
          value={parameters[parameter.name]}
          onChange={(value) =>
            use.change(
              { settings: withSetting(settings, held, parameter.name, value) },
              `${parameter.label.toLowerCase()} here`,
            )
          }
        />
      ))}
      {settings ? (
        <p className="text-soft">
          Set for this page only.{' '}
          <Button
            kind="link"
            onClick={() => use.change({ settings: null }, 'its settings as on other pages')}
          >
            As on other pages
          </Button>
        </p>
      ) : null}
    </>
  );
}

const isSetHere = ({ role }: Parameter) => role === 'start' || role === 'captions';

const SHORT: Readonly<Record<EmbedForm, string>> = {
  click: 'a poster that becomes the frame',
  frame: 'a frame',
  widget: 'a closed page',
  player: 'a player',
  poster: 'a linked poster',
  link: 'a link',
};
