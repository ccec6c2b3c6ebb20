import * as v from 'valibot';
import type { Asset } from '#api/assets.ts';
import { type Label, LabelSchema } from '#core/rights/label.ts';
import { Form, Line } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import type { ChangeOfEach } from '../pieces/pieces.ts';
import { Button } from '../ui/button.tsx';

const LINES = [
  ['creator', 'Maker'],
  ['makerAddress', 'Maker’s address'],
  ['source', 'Source'],
  ['sourceAddress', 'Address at the source'],
  ['copyrightNotice', 'Copyright notice'],
] as const;
type CreditField = (typeof LINES)[number][0];

const CreditSchema = v.pick(LabelSchema, [
  'creator',
  'makerAddress',
  'source',
  'sourceAddress',
  'copyrightNotice',
]);

interface ManyCreditProps {
  readonly assets: readonly Asset[];
  readonly onChange: (change: ChangeOfEach, name: string) => Promise<void>;
  readonly onDone: () => void;
}

/** Who made several pieces, and what their credits name. A line in which nothing was typed stays as it is on each. */
export function ManyCredit({ assets, onChange, onDone }: ManyCreditProps) {
  const shared = (field: CreditField) => sharedBy(assets, field);
  const form = useSaveForm({
    schema: CreditSchema,
    defaults: {
      creator: shared('creator') ?? '',
      makerAddress: shared('makerAddress') ?? '',
      source: shared('source') ?? '',
      sourceAddress: shared('sourceAddress') ?? '',
      copyrightNotice: shared('copyrightNotice') ?? '',
    },
    save: async (said) => {
      const { dirtyFields } = form.form.formState;
      const label = Object.fromEntries(
        LINES.flatMap(([field]) => (dirtyFields[field] ? [[field, said[field]]] : [])),
      );
      if (Object.keys(label).length > 0) await onChange({ label }, 'maker and credit');
      onDone();
    },
  });
  // Asked for while it is drawn, so that it is kept up to date from then on.
  void form.form.formState.dirtyFields;
  return (
    <Form of={form} className="w-75 p-3" aria-label="Maker and credit">
      {LINES.map(([field, name]) => (
        <Line
          key={field}
          of={form}
          name={field}
          label={name}
          maxLength={1000}
          placeholder={shared(field) === null ? 'Differs; stays as it is' : ''}
        />
      ))}
      <Button className="justify-self-start" kind="action" type="submit" disabled={form.isBusy}>
        Save for all {assets.length}
      </Button>
    </Form>
  );
}

/** What all of them say; null where they differ. */
function sharedBy(assets: readonly Asset[], field: keyof Label & CreditField): string | null {
  const said = new Set(assets.map(({ label }) => label[field]));
  const [only] = said;
  return said.size === 1 && only !== undefined ? only : null;
}
