import { describe, expect, it } from 'vitest';
import type { Severity } from '#core/proof/codes.ts';
import type { Finding } from '#core/proof/finding.ts';
import { drawn, wordsOf } from '../testing.tsx';
import { Findings } from './findings.tsx';

const finding = (
  severity: Severity,
  change: Partial<Pick<Finding, 'viewports' | 'remedies'>> = {},
): Finding => ({
  code: 'enlarged',
  values: { name: 'Heron', shown: 800, cut: 400 },
  place: { kind: 'page' },
  viewports: [],
  remedies: [],
  severity,
  ...change,
});

const html = (
  findings: readonly Finding[],
  change: { readonly isEditable?: boolean; readonly mended?: string } = {},
) =>
  drawn(
    <Findings
      numbered={findings.map((one, at) => ({
        number: at + 1,
        finding: { ...one, place: { kind: 'block', blockId: `block-${at}` } },
      }))}
      chosen={1}
      mended={change.mended ?? null}
      isEditable={change.isEditable ?? true}
      onChoose={() => undefined}
      onApply={async () => undefined}
      onWrite={async () => undefined}
    />,
  );

describe('the list of findings', () => {
  it.each([
    [[], 'Nothing stops sending Nothing was found. It can go out as it is.'],
    [['stops'], '1 thing stops sending'],
    [['stops', 'stops'], '2 things stop sending'],
    [['stops', 'mend'], '1 thing stops sending, 1 is worth a look'],
    [['mend', 'note'], 'Nothing stops sending, 2 are worth a look'],
  ] as const)('of %j begins with what stops sending', (severities, words) => {
    expect(wordsOf(html(severities.map((severity) => finding(severity))))).toContain(words);
  });

  it('says each with why, how it counts, and where', () => {
    const words = wordsOf(html([finding('mend', { viewports: [390, 834] })]));
    expect(words).toContain(
      'Heron is enlarged 2.0 times. It is shown 800 px wide and has 400 px, so it turns soft and blocky. Should be mended. At 390, 834 px.',
    );
  });

  it('has the remedies in it, the first before the others, and none for those who may not', () => {
    const remedies = [
      { kind: 'remove', which: 'it', placementId: 'a' },
      { kind: 'placement', does: 'narrow', placementId: 'a', change: { width: { unit: 'px', value: 600 } } },
    ] as const;
    const shown = html([finding('stops', { remedies })]);
    expect(wordsOf(shown)).toMatch(/Take it off the page.*Show it 600 px wide/);
    expect(html([finding('stops', { remedies })], { isEditable: false })).not.toContain(
      'Take it off the page',
    );
  });

  it('marks the chosen one, and says what was mended with its way back', () => {
    expect(html([finding('stops'), finding('note')])).toMatch(/data-chosen="true"[\s\S]*data-chosen="false"/);
    expect(wordsOf(html([], { mended: 'the heading' }))).toContain('Mended just now: the heading Undo');
  });
});
