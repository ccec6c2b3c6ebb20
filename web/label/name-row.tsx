import { useWatch } from 'react-hook-form';
import { Link } from 'react-router';
import * as v from 'valibot';
import { type Asset, AssetChangeSchema } from '#api/assets.ts';
import { nameFault, sayNameFault } from '#core/naming/names.ts';
import { nameByPattern, sayPattern } from '#core/naming/pattern.ts';
import type { HouseRules } from '#core/page/target.ts';
import { FolderLine, Line } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { sayPageTitle } from '../pages/say-title.ts';
import { changePiece } from '../pieces/pieces.ts';
import { sayPageCount } from '../pieces/say-used-on.ts';
import { Button } from '../ui/button.tsx';
import { LabelForm, LabelRow, OpenRow, type RowState } from './row.tsx';

interface NameRowProps extends RowState {
  readonly asset: Asset;
  readonly rules: HouseRules;
}

/** The file's name by the house pattern, its folder, and the pages it is on. */
export function NameRow({ asset, rules, ...state }: NameRowProps) {
  const fault = nameFault(asset.stem);
  const called = asset.embed ? asset.stem : `${asset.stem}.${asset.extension}`;
  const came = asset.embed || asset.originalName === called ? '' : `Came in as ${asset.originalName}.`;
  return (
    <LabelRow
      name="Name"
      way={<OpenRow words="Change name or folder" state={state} />}
      form={
        state.isOpen ? <NameForm key={asset.id} asset={asset} rules={rules} onDone={state.onToggle} /> : null
      }
    >
      <p className="font-mono text-mono wrap-anywhere">{called}</p>
      {fault ? <p className="text-due">{sayNameFault(fault)}</p> : null}
      <p className="text-soft">
        {asset.folder ? `In ${asset.folder.replaceAll('/', ' / ')}. ` : ''}
        {came}
      </p>
      <OnPages asset={asset} />
    </LabelRow>
  );
}

/** The pages that a piece stands on, as ways there; how many they are, for those who do not read pages. */
function OnPages({ asset }: { readonly asset: Asset }) {
  const pages = asset.usedOn.flatMap(({ id, title }) => (title === null ? [] : [{ id, title }]));
  if (asset.usedOn.length === 0) return null;
  if (pages.length === 0) return <p className="text-soft">{`O${sayPageCount(asset).slice(1)}.`}</p>;
  return (
    <p className="text-soft">
      On{' '}
      {pages.map((page, at) => (
        <span key={page.id}>
          {at > 0 ? ', ' : ''}
          <Link to={`/pages/${page.id}?piece=${asset.id}`}>{sayPageTitle(page.title)}</Link>
        </span>
      ))}
      .
    </p>
  );
}

/** A name and a folder, as a change to the piece says them. */
const PlaceSchema = v.required(v.pick(AssetChangeSchema, ['stem', 'folder']));

function NameForm({
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
  const { title, place, maker, taken } = asset.label;
  const offered = nameByPattern(rules.namePattern, {
    title,
    place,
    maker,
    taken,
    fileName: asset.originalName,
    kind: 'picture',
  });
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
