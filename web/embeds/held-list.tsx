import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { sayKind } from '#core/embed/model.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { sayUsedOn } from '../pieces/say-used-on.ts';
import { heldEmbedsQuery } from './embed-queries.ts';

/** The embeds that are on the shelf, last first. */
export function HeldList() {
  const held = useQuery(heldEmbedsQuery);
  const assets = held.data?.assets ?? [];
  if (assets.length === 0) return <Unanswered of={held} className="px-0" />;
  return (
    <section aria-labelledby="held-embeds">
      <h2 className="text-xl" id="held-embeds">
        On the shelf
      </h2>
      <ul className="mt-3 flex flex-wrap gap-x-5.5 gap-y-5">
        {assets.map((asset) => (
          <li key={asset.id}>
            <Link className="group grid gap-0.5 no-underline" to={`/embeds?piece=${asset.id}`}>
              <img
                className="mb-1.25 h-37.5 w-auto"
                src={asset.thumb}
                alt=""
                width={asset.width}
                height={asset.height}
                loading="lazy"
              />
              <b className="group-hover:underline">{asset.label.title || asset.stem}</b>
              <span className="text-soft">
                {asset.kind === 'embed' ? sayKind(asset.embed.embed.kind) : ''}, {sayUsedOn(asset)}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
