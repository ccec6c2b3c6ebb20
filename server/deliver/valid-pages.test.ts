import fc from 'fast-check';
import { HtmlValidate } from 'html-validate/node';
import { describe, expect, it } from 'vitest';
import { anyPage, PAGE_PIECES, PAGE_RULES } from '#core/page/source/testing.ts';
import { writeDocument, writeListing, writeTeaser } from '#core/page/write.ts';

const validator = new HtmlValidate({ extends: ['html-validate:standard'] });
const context = {
  rules: PAGE_RULES,
  pieces: PAGE_PIECES,
  pages: new Map([['other', { title: 'Other', address: '/other', language: 'de' }]]),
  addressOf: ({ fileName }: { fileName: string }) => `media/${fileName}`,
  fileOf: (fileName: string) => `files/${fileName}`,
};

async function faultsOf(html: string): Promise<readonly string[]> {
  const report = await validator.validateString(html);
  return report.results.flatMap(({ messages }) =>
    messages.map(({ ruleId, message, line }) => `${ruleId}: ${message}\n${html.split('\n')[line - 1] ?? ''}`),
  );
}

describe('whatever page Placard can make', () => {
  it.each([
    ['with its style sheet', {}],
    ['with styles in the HTML', { isInline: true }],
    ['to be proofed', { isMarked: true }],
  ])('goes out as valid HTML %s', async (_, how) => {
    await fc.assert(
      fc.asyncProperty(anyPage, async (page) => {
        expect(await faultsOf(writeDocument(page, { ...context, ...how, styleSheet: 'style.css' }))).toEqual(
          [],
        );
      }),
      { numRuns: 60 },
    );
  });

  it('is looked at by something that finds faults', async () => {
    const html =
      '<!DOCTYPE html>\n<html lang="en"><head><title>A</title></head><body><p><ul></ul></p></body></html>\n';
    expect(await faultsOf(html)).not.toEqual([]);
  });

  it('stands in a listing as valid HTML', async () => {
    await fc.assert(
      fc.asyncProperty(anyPage, async (page) => {
        const teaser = writeTeaser(page, context, '/here');
        if (teaser !== '')
          expect(
            await faultsOf(writeListing([teaser], { rules: PAGE_RULES, styleSheet: 'style.css' })),
          ).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });
});
