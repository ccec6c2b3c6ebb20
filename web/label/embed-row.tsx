import type { Asset } from '#api/assets.ts';
import { EMBED_FORMS, type EmbedForm, FORM_WORDS, whyNot } from '#core/embed/forms.ts';
import { entryById, trustOf } from '#core/embed/host.ts';
import { sayWhatItIs } from '#core/embed/say.ts';
import { formCase, formHere, type HeldEmbed } from '#core/page/embed-here.ts';
import type { HouseRules } from '#core/page/target.ts';
import { LinkButton } from '../ui/button.tsx';
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
  const { embed, hosts } = held;
  const entry = entryById(embed.host, hosts);
  const of = formCase(rules, held);
  const form = formHere(rules, use?.placement ?? { form: null }, held);
  const closed = embed.carrier === 'frame' ? whyNot('frame', of) : null;
  return (
    <LabelRow
      name="Embed"
      way={
        <LinkButton
          className="min-h-6 text-sm"
          kind="link"
          to={`/embeds?piece=${asset.id}`}
          aria-label="Open it in Embeds"
        >
          Open
        </LinkButton>
      }
    >
      <p>{sayWhatItIs(embed, entry, trustOf(embed.address, hosts))}</p>
      {closed ? <p className="text-due">{closed}</p> : null}
      {use && isEditable ? (
        <Field name="Stands here as">
          {(control) => (
            <Select
              {...control}
              value={form}
              choices={EMBED_FORMS.filter((one) => whyNot(one, of) === null).map(
                (one) => [one, FORM_WORDS[one]] as const,
              )}
              onChoose={(chosen) => use.change({ form: chosen }, `showing it as ${SHORT[chosen]}`)}
            />
          )}
        </Field>
      ) : (
        <p>{FORM_WORDS[form]}.</p>
      )}
    </LabelRow>
  );
}

const SHORT: Readonly<Record<EmbedForm, string>> = {
  click: 'a poster that becomes the frame',
  frame: 'a frame',
  widget: 'a closed page',
  player: 'a player',
  poster: 'a linked poster',
  link: 'a link',
};
