import type { FindingCode } from '../proof/codes.ts';
import type { Finding } from '../proof/finding.ts';

/** Findings about what is said to those who read, hear or find a page. */
const WORDS: ReadonlySet<FindingCode> = new Set<FindingCode>([
  'alt-missing',
  'alt-poor',
  'language-differs',
  'words-unsaid',
  'captions-missing',
  'captions-out-of-step',
  'title-missing',
  'teaser-unsaid',
  'link-empty',
  'link-vague',
]);

/** Findings about what may be shown, and what is owed for it. */
const RIGHTS: ReadonlySet<FindingCode> = new Set<FindingCode>([
  'licence-missing',
  'licence-claimed',
  'credit-missing',
  'credit-leaves-out',
  'use-not-allowed',
]);

/** How many findings a page, or all pages of a target, have. `words` and `rights` are parts of the others. */
export interface FindingCounts {
  readonly stops: number;
  readonly mends: number;
  readonly words: number;
  readonly rights: number;
}

/** Counts findings by how they count and by what they are about; what is only worth knowing is passed over. */
export function countFindings(findings: readonly Pick<Finding, 'code' | 'severity'>[]): FindingCounts {
  const pressing = findings.filter(({ severity }) => severity !== 'note');
  const of = (is: (finding: Pick<Finding, 'code' | 'severity'>) => boolean) => pressing.filter(is).length;
  return {
    stops: of(({ severity }) => severity === 'stops'),
    mends: of(({ severity }) => severity === 'mend'),
    words: of(({ code }) => WORDS.has(code)),
    rights: of(({ code }) => RIGHTS.has(code)),
  };
}

/** A target on one day. `bytes` is what a page that is out loads at first, on average; null where none was read back. */
export interface ReportDay extends FindingCounts {
  readonly day: string;
  readonly pages: number;
  readonly out: number;
  readonly sent: number;
  readonly bytes: number | null;
}

/** Several targets on the same days, summed up; bytes are weighed by the pages that are out. */
export function summedDays(days: readonly ReportDay[]): readonly ReportDay[] {
  const byDay = new Map<string, ReportDay[]>();
  for (const one of days) byDay.set(one.day, [...(byDay.get(one.day) ?? []), one]);
  return [...byDay]
    .map(([day, same]) => {
      const sum = (of: (one: ReportDay) => number) => same.reduce((all, one) => all + of(one), 0);
      const weighed = same.filter(({ bytes, out }) => bytes !== null && out > 0);
      const weight = weighed.reduce((all, { out }) => all + out, 0);
      return {
        day,
        pages: sum(({ pages }) => pages),
        out: sum(({ out }) => out),
        sent: sum(({ sent }) => sent),
        stops: sum(({ stops }) => stops),
        mends: sum(({ mends }) => mends),
        words: sum(({ words }) => words),
        rights: sum(({ rights }) => rights),
        bytes:
          weight === 0
            ? null
            : Math.round(weighed.reduce((all, { bytes, out }) => all + (bytes ?? 0) * out, 0) / weight),
      };
    })
    .sort((one, other) => (one.day < other.day ? -1 : 1));
}
