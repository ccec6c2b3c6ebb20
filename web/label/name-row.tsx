import { type FormEvent, useId, useState } from 'react';
import { Link } from 'react-router';
import type { Asset } from '#api/assets.ts';
import { nameFault, sayNameFault } from '#core/naming/names.ts';
import { nameByPattern, sayPattern } from '#core/naming/pattern.ts';
import type { HouseRules } from '#core/page/target.ts';
import { sayPageTitle } from '../pages/say-title.ts';
import { sayPageCount } from '../pieces/say-used-on.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { FolderChoices } from '../ui/folder-choices.tsx';
import { Input } from '../ui/input.tsx';
import { LabelRow, OpenRow, type RowState, useLabelChange } from './row.tsx';

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
      <p className="font-mono text-mono" style={{ overflowWrap: 'anywhere' }}>
        {called}
      </p>
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

function NameForm({
  asset,
  rules,
  onDone,
}: {
  readonly asset: Asset;
  readonly rules: HouseRules;
  readonly onDone: () => void;
}) {
  const listId = useId();
  const [stem, setStem] = useState(asset.stem);
  const [folder, setFolder] = useState(asset.folder);
  const { fault, save } = useLabelChange(asset);
  const { title, place, maker, taken } = asset.label;
  const offered = nameByPattern(rules.namePattern, {
    title,
    place,
    maker,
    taken,
    fileName: asset.originalName,
    kind: 'picture',
  });
  const ownFault = nameFault(stem);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (await save({ stem, folder }, 'its name')) onDone();
  };
  return (
    <form className="col-span-full grid gap-2.25 pt-1.5" onSubmit={(event) => void submit(event)}>
      <Field
        name="Name"
        fault={fault ?? (ownFault ? sayNameFault(ownFault) : null)}
        hint={`The house pattern is ${sayPattern(rules.namePattern)}.`}
      >
        {(control) => (
          <Input
            {...control}
            className="font-mono text-mono"
            maxLength={200}
            value={stem}
            onChange={(event) => setStem(event.target.value)}
          />
        )}
      </Field>
      {offered !== stem ? (
        <Button kind="link" onClick={() => setStem(offered)}>
          Use {offered}
        </Button>
      ) : null}
      <Field name="Folder">
        {(control) => (
          <Input
            {...control}
            className="font-mono text-mono"
            list={listId}
            maxLength={400}
            value={folder}
            onChange={(event) => setFolder(event.target.value)}
          />
        )}
      </Field>
      <FolderChoices id={listId} />
      <div className="flex flex-wrap gap-2">
        <Button kind="action" type="submit">
          Save name
        </Button>
      </div>
    </form>
  );
}
