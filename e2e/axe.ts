import type { Page } from '@playwright/test';
import axe from 'axe-core';
import * as v from 'valibot';

const TAGS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];

const ResultSchema = v.object({
  violations: v.array(
    v.object({
      id: v.string(),
      nodes: v.array(v.object({ target: v.array(v.unknown()), failureSummary: v.optional(v.string()) })),
    }),
  ),
});

/**
 * Every fault that axe finds on the page as it stands, or in what `within` selects of it, a line each. Frames of other
 * origins are left out.
 */
export async function faultsOf(page: Page, within: string | null = null): Promise<readonly string[]> {
  // Evaluated from outside, past the page's own policy, which lets no foreign script in.
  if (!(await page.evaluate("'axe' in window"))) await page.evaluate(axe.source);
  const result: unknown = await page.evaluate(
    // Faults alone are worked out to the end and sent here; all that passes is several times as much.
    `axe.run(${within === null ? 'document' : JSON.stringify(within)}, {
      iframes: false,
      resultTypes: ['violations'],
      runOnly: { type: 'tag', values: ${JSON.stringify(TAGS)} },
      rules: { 'label-content-name-mismatch': { enabled: true } },
    }).then(({ violations }) => ({ violations }))`,
  );
  return v
    .parse(ResultSchema, result)
    .violations.flatMap(({ id, nodes }) =>
      nodes.map(
        (node) =>
          `${id}: ${node.target.join(' ')} ${node.failureSummary?.split('\n').slice(1, 3).join(' ') ?? ''}`,
      ),
    );
}
