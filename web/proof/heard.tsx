import { useMemo } from 'react';
import type { PageDoc } from '#core/page/model.ts';
import type { Piece } from '#core/page/piece.ts';
import type { HouseRules } from '#core/page/target.ts';
import { walkPage } from '#core/page/walk.ts';
import type { Finding } from '#core/proof/finding.ts';
import { proofInput } from '#core/proof/input.ts';
import { type Said, spoken } from '#core/proof/spoken.ts';
import { cx } from '../ui/cx.ts';
import type { NumberedFinding } from './frame.tsx';

interface HeardProps {
  readonly page: PageDoc;
  readonly rules: HouseRules;
  readonly pieces: ReadonlyMap<string, Piece>;
  readonly findings: readonly NumberedFinding[];
  readonly chosen: number | null;
  readonly onChoose: (number: number) => void;
}

const blockOf = (place: Finding['place']): string | null =>
  place.kind === 'placement' ? place.placementId : place.kind === 'block' ? place.blockId : null;

/** What is said, and where nothing is though something was found there: before what is said next. */
function withSilent(
  said: readonly Said[],
  page: PageDoc,
  findings: readonly NumberedFinding[],
): readonly Said[] {
  const ids = [...walkPage(page)].map(({ attrs }) => attrs.id);
  const heard = new Set(said.map(({ block }) => block));
  const silent = new Set(findings.flatMap(({ finding }) => blockOf(finding.place) ?? []));
  return ids
    .filter((id) => silent.has(id) && !heard.has(id))
    .reduce<readonly Said[]>((lines, id) => {
      const later = new Set(ids.slice(ids.indexOf(id) + 1));
      const next = lines.findIndex(({ block }) => block !== null && later.has(block));
      const at = next < 0 ? lines.length : next;
      return lines.toSpliced(at, 0, { block: id, role: 'Nothing is said here', words: '', depth: 0 });
    }, said);
}

/** The page as those hear it who cannot see it: what is said, in order, with the findings where they stand. */
export function Heard({ page, rules, pieces, findings, chosen, onChoose }: HeardProps) {
  const lines = useMemo(
    () => withSilent(spoken(proofInput(page, rules, pieces, new Date()).html), page, findings),
    [page, rules, pieces, findings],
  );
  const first = new Map<string, number>();
  for (const [at, { block }] of lines.entries()) if (block && !first.has(block)) first.set(block, at);
  return (
    <section
      aria-label="The page as it is heard"
      className="overflow-auto px-4.5 pt-3.5 pb-7.5"
      // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, also by keys (WCAG 2.1.1).
      tabIndex={0}
    >
      <p className="mb-2.5 max-w-170 text-soft">
        What is said of the page, in its order. Screen readers word it each in their own way; folded parts are
        told as they are once they are opened.
      </p>
      <ol className="max-w-170 border-t border-hairline bg-panel" lang={rules.language}>
        {lines.map(({ role, words, depth, block }, at) => {
          const here =
            block !== null && first.get(block) === at
              ? findings.filter(({ finding }) => blockOf(finding.place) === block)
              : [];
          return (
            <li
              // biome-ignore lint/suspicious/noArrayIndexKey: a line is where it is said
              key={at}
              className="flex gap-2.5 border-b border-hairline px-3.75 py-1.5"
              style={{ paddingLeft: `${15 + depth * 18}px` }}
            >
              <span className="min-w-0 flex-1">
                {role === '' ? null : (
                  <span className="text-soft">
                    {role}
                    {words === '' ? '' : ': '}
                  </span>
                )}
                {words}
              </span>
              {here.map(({ number, finding }) => (
                <button
                  key={number}
                  type="button"
                  className={cx(
                    'h-6 min-w-6 self-start bg-paper-ink px-1 text-center text-sm leading-6 font-semibold text-white',
                    'data-[severity=stops]:bg-measure',
                    chosen === number && 'outline-2 outline-offset-2 outline-measure',
                  )}
                  aria-label={`Finding ${number}`}
                  aria-pressed={chosen === number}
                  data-severity={finding.severity}
                  onClick={() => onChoose(number)}
                >
                  {number}
                </button>
              ))}
            </li>
          );
        })}
      </ol>
    </section>
  );
}
