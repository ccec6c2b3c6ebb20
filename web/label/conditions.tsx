import { Link } from 'react-router';
import type { Asset } from '#api/assets.ts';
import { type Condition, needsHand, sayCondition } from '#core/media/condition.ts';
import { Button } from '../ui/button.tsx';
import { FAULT_LOOK } from '../ui/fault.tsx';
import { useLabelChange } from './use-label-change.ts';

/** What was found on the file when it came in: first what needs a hand, with its remedy, then what is only told. */
export function Conditions({ asset, isEditable }: { readonly asset: Asset; readonly isEditable: boolean }) {
  const { fault, save } = useLabelChange(asset);
  const trimmed = (condition: Condition) => condition.code === 'border' && asset.trim !== null;
  const ordered = [...asset.conditions].sort((a, b) => Number(needsHand(b)) - Number(needsHand(a)));
  if (ordered.length === 0) return null;
  return (
    <ul className="list-disc pl-4">
      {ordered.map((condition) => (
        <li
          key={condition.code}
          className={needsHand(condition) && !trimmed(condition) ? 'text-due' : 'text-soft'}
        >
          {trimmed(condition)
            ? 'A border was part of the picture, and is left out.'
            : sayCondition(condition)}{' '}
          {condition.code === 'enlarged-before' || condition.code === 'compressed' ? (
            <Link to={`/gather?${new URLSearchParams({ words: asset.label.title || asset.stem })}`}>
              Look for a better one
            </Link>
          ) : null}
          {condition.code === 'border' && isEditable ? (
            <Button
              kind="link"
              onClick={() =>
                void save(
                  { trim: asset.trim ? null : condition.inside },
                  asset.trim ? 'showing its border' : 'trimming its border',
                )
              }
            >
              {asset.trim ? 'Show it again' : 'Leave it out'}
            </Button>
          ) : null}
        </li>
      ))}
      {fault ? (
        <li className={FAULT_LOOK} role="alert">
          {fault}
        </li>
      ) : null}
    </ul>
  );
}
