import { useQuery } from '@tanstack/react-query';
import type { Asset } from '#api/assets.ts';
import type { JudgedUse } from '#api/rights.ts';
import { usesQuery } from '../api/queries.ts';
import { sayPageTitle } from '../pages/say-title.ts';
import { CutDrawing } from './cut-drawing.tsx';

/** One of the two that are compared: under its drawing, and as those hear it who cannot see that. */
interface Compared {
  readonly asset: Asset;
  readonly when: string;
  readonly which: string;
}

interface CutsComparedProps {
  readonly now: Compared;
  readonly then: Compared;
}

/** A piece beside the one that is to take its place, in each cut that stands on a page. */
export function CutsCompared({ now, then }: CutsComparedProps) {
  const { data: uses = [] } = useQuery(usesQuery(now.asset.id, now.asset.version));
  const cuts = uses.flatMap((use) =>
    use.placements.map((placement) => ({ use, placement, key: `${use.pageId} ${placement.id}` })),
  );
  return (
    <div className="grid gap-4">
      {cuts.map(({ use, placement, key }) => (
        <section key={key} aria-label={`On ${sayPageTitle(use.title)}`}>
          <h3 className="mb-1.25 text-sm text-soft">{sayUse(use, placement.ratio)}</h3>
          <div className="grid grid-cols-2 items-start gap-3">
            {[now, then].map(({ when, which, asset }) => (
              <figure key={when}>
                <CutDrawing
                  asset={asset}
                  placement={placement}
                  alt={`${which} on ${sayPageTitle(use.title)}`}
                />
                <figcaption className="mt-1 text-sm text-soft">{when}</figcaption>
              </figure>
            ))}
          </div>
        </section>
      ))}
    </div>
  );
}

function sayUse({ title, target }: JudgedUse, ratio: { across: number; down: number } | null): string {
  const cut = ratio ? `cut to ${ratio.across}:${ratio.down}` : 'shown whole';
  return `“${sayPageTitle(title)}”, for the ${target}, ${cut}`;
}
