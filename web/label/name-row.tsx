import { lazy, Suspense } from 'react';
import { Link } from 'react-router';
import type { Asset } from '#api/assets.ts';
import { nameFault, sayNameFault } from '#core/naming/rule.ts';
import type { HouseRules } from '#core/page/target.ts';
import { sayPageTitle } from '../pages/say-title.ts';
import { sayPageCount } from '../pieces/say-used-on.ts';
import { LabelRow, OpenRow, type RowState } from './row.tsx';

const NameForm = lazy(async () => ({ default: (await import('./name-form.tsx')).NameForm }));

interface NameRowProps extends RowState {
  readonly asset: Asset;
  readonly rules: HouseRules;
}

/** The file's name by the house pattern, its folder, and the pages it is on. */
export function NameRow({ asset, rules, ...state }: NameRowProps) {
  const fault = nameFault(asset.stem);
  const isEmbed = asset.kind === 'embed';
  const called = isEmbed ? asset.stem : `${asset.stem}.${asset.extension}`;
  const came = isEmbed || asset.originalName === called ? '' : `Came in as ${asset.originalName}.`;
  return (
    <LabelRow
      name="Name"
      way={<OpenRow words="Change name or folder" state={state} />}
      form={
        state.isOpen ? (
          <Suspense>
            <NameForm key={asset.id} asset={asset} rules={rules} onDone={state.onToggle} />
          </Suspense>
        ) : null
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
