import { describe, expect, it } from 'vitest';
import { FINDING_CODES, WHAT_OFF_MEANS } from './codes.ts';

describe('what it means that a fault is no longer looked for', () => {
  it('is said of each that shuts readers out, with the criterion that nobody checks then', () => {
    const access = FINDING_CODES.filter((code) =>
      /^(alt|words|heading|title|link|captions|language)/.test(code),
    );
    for (const code of access) expect(WHAT_OFF_MEANS[code]).toMatch(/\(WCAG \d\.\d\.\d{1,2}\)\.$/);
  });
});
