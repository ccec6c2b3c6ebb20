import type { Asset } from '#api/assets.ts';
import { termsOf } from '#core/rights/house-licence.ts';
import { LabelRow } from '../label/row.tsx';

/** The label of several chosen pieces: what is the same for all, and what differs. */
export function ChosenCard({ assets }: { readonly assets: readonly Asset[] }) {
  const [first] = assets;
  if (!first) return null;
  const facts = [
    ['licence', (asset: Asset) => termsOf(asset.label).name],
    ['maker', (asset: Asset) => asset.label.creator || 'no maker'],
    ['folder', (asset: Asset) => asset.folder || 'no folder'],
    ['format', (asset: Asset) => asset.format.toUpperCase()],
    ['size', (asset: Asset) => `${asset.width} × ${asset.height}`],
  ] as const;
  const values = facts.map(([name, of]) => [name, [...new Set(assets.map(of))]] as const);
  const same = values.filter(([, different]) => different.length === 1);
  const differ = values.filter(([, different]) => different.length > 1);
  const worded = assets.filter((asset) => asset.label.alt.kind !== 'unsaid').length;
  const pages = new Set(assets.flatMap((asset) => asset.usedOn.map((page) => page.id))).size;
  return (
    <article
      className="border-t-7 border-ink bg-panel px-3.75 pb-2 shadow-card"
      aria-label={`${assets.length} chosen pieces`}
    >
      <header className="pt-3 pb-2.75">
        <h2 className="font-serif text-3xl leading-tight font-normal wrap-anywhere italic">
          {first.label.title || first.stem}
        </h2>
        <p className="mt-0.75 flex items-baseline justify-between gap-2.5 text-soft">
          and {assets.length - 1} more chosen
        </p>
      </header>
      <LabelRow name="Same">
        <p>
          {same.length > 0
            ? same.map(([name, [value]]) => `${name}: ${value}`).join(', ')
            : 'Nothing is the same for all.'}
        </p>
      </LabelRow>
      <LabelRow name="Differ">
        {differ.map(([name, different]) => (
          <p key={name}>
            {name}: {different.slice(0, 3).join(', ')}
            {different.length > 3 ? ` and ${different.length - 3} more` : ''}
          </p>
        ))}
      </LabelRow>
      <LabelRow name="Alt text">
        <p>
          {worded === assets.length
            ? 'Each has its own alt text.'
            : `${assets.length - worded} of ${assets.length} have no words.`}
        </p>
      </LabelRow>
      <LabelRow name="Used">
        <p>{pages === 0 ? 'On no page.' : pages === 1 ? 'On 1 page.' : `On ${pages} pages.`}</p>
      </LabelRow>
    </article>
  );
}
