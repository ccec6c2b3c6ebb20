import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { sayKind } from '#core/embed/model.ts';
import { sayUsedOn } from '../pieces/say-used-on.ts';
import { heldEmbedsQuery } from './embed-queries.ts';

/** The embeds that are on the shelf, last first. */
export function HeldList() {
  const held = useQuery(heldEmbedsQuery);
  const assets = held.data?.assets ?? [];
  if (assets.length === 0) return null;
  return (
    <section className="held-embeds" aria-labelledby="held-embeds">
      <h2 id="held-embeds">On the shelf</h2>
      <ul>
        {assets.map((asset) => (
          <li key={asset.id}>
            <Link to={`/embeds?piece=${asset.id}`}>
              <img src={asset.thumb} alt="" width={asset.width} height={asset.height} loading="lazy" />
              <b>{asset.label.title || asset.stem}</b>
              <span className="soft">
                {asset.embed ? sayKind(asset.embed.embed.kind) : ''}, {sayUsedOn(asset)}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
