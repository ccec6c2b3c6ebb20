import { useWatch } from 'react-hook-form';
import * as v from 'valibot';
import { type Asset, AssetChangeSchema } from '#api/assets.ts';
import { sayPattern } from '#core/naming/parts.ts';
import { nameFactsOf, nameFor } from '#core/naming/pattern.ts';
import { nameFault, sayNameFault } from '#core/naming/rule.ts';
import type { HouseRules } from '#core/page/target.ts';
import { FolderLine, Line } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { changePiece } from '../pieces/pieces.ts';
import { Button } from '../ui/button.tsx';
import { LabelForm } from './row.tsx';

/** A name and a folder, as a change to the piece says them. */
const PlaceSchema = v.required(v.pick(AssetChangeSchema, ['stem', 'folder']));

/** The name by the house pattern, offered or written, and the folder. Opened seldom, and what spells letters of all scripts is large. */
export function NameForm({
  asset,
  rules,
  onDone,
}: {
  readonly asset: Asset;
  readonly rules: HouseRules;
  readonly onDone: () => void;
}) {
  const form = useSaveForm({
    schema: PlaceSchema,
    defaults: { stem: asset.stem, folder: asset.folder },
    refusedAt: 'stem',
    keepAs: `name of ${asset.id}`,
    save: async (change) => {
      await changePiece(asset.id, change, 'its name');
      onDone();
    },
  });
  const stem = useWatch({ control: form.form.control, name: 'stem' });
  const offered = nameFor(rules, nameFactsOf(asset));
  const fault = nameFault(stem);
  return (
    <LabelForm of={form} deed="Save name">
      <Line
        of={form}
        name="stem"
        label="Name"
        hint={fault ? sayNameFault(fault) : `The house pattern is ${sayPattern(rules.namePattern)}.`}
        isMono
        maxLength={200}
      />
      {offered !== stem ? (
        <Button kind="link" onClick={() => form.form.setValue('stem', offered, { shouldDirty: true })}>
          Use {offered}
        </Button>
      ) : null}
      <FolderLine of={form} name="folder" label="Folder" />
    </LabelForm>
  );
}
