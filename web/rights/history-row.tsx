import { useQuery } from '@tanstack/react-query';
import type { Asset } from '#api/assets.ts';
import type { HistoryLine } from '#api/rights.ts';
import { LABEL_FIELD_WORDS } from '#core/rights/say-label.ts';
import { historyQuery } from '../api/queries.ts';
import { LabelRow } from '../label/row.tsx';
import { sayTime } from '../ui/dates.ts';
import { Folded } from '../ui/folded.tsx';

const FIRST = 4;
const LONGEST = 120;

/** Who said what of a piece, newest first. */
export function HistoryRow({ asset }: { readonly asset: Asset }) {
  const { data: lines } = useQuery(historyQuery(asset.id, asset.version));
  if (!lines || lines.length === 0) return null;
  const [first, rest] = [lines.slice(0, FIRST), lines.slice(FIRST)];
  return (
    <LabelRow name="Said by">
      <ul className="grid gap-1 text-soft">
        {first.map((line) => (
          <Said key={`${line.at} ${line.what}`} line={line} />
        ))}
      </ul>
      {rest.length > 0 ? (
        <Folded words={`${rest.length} before that`} isSoft>
          <ul className="grid gap-1 text-soft">
            {rest.map((line) => (
              <Said key={`${line.at} ${line.what}`} line={line} />
            ))}
          </ul>
        </Folded>
      ) : null}
    </LabelRow>
  );
}

function Said({ line: { at, who, what, fields } }: { readonly line: HistoryLine }) {
  return (
    <li className="wrap-anywhere">
      {sayTime(at)}: {who} {fields.length === 0 ? what : fields.map(sayField).join('; ')}
    </li>
  );
}

function sayField({ field, now }: HistoryLine['fields'][number]): string {
  const name = LABEL_FIELD_WORDS[field] ?? field;
  if (now === '') return `took away ${name}`;
  return `said ${name}: ${now.length > LONGEST ? `${now.slice(0, LONGEST)}...` : now}`;
}
