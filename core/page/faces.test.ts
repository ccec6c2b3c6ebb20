import { describe, expect, it } from 'vitest';
import { LABEL_FACES, standInFaces, TEXT_FACES } from './faces.ts';

describe('what stands in for the faces of a page', () => {
  it('is there in regular and bold for each family that the text asks for', () => {
    const rules = standInFaces().trim().split('\n');
    const asked = `${TEXT_FACES}, ${LABEL_FACES}`.match(/"Page [^"]+"/gu) ?? [];
    expect(asked).toHaveLength(5);
    for (const family of asked)
      expect(rules.filter((rule) => rule.includes(`font-family: ${family};`))).toHaveLength(2);
    for (const rule of rules)
      expect(rule).toMatch(
        /src: local\("[^"]+"\).*; size-adjust: \d+(\.\d)?%; ascent-override: \d+(\.\d)?%; descent-override: \d+(\.\d)?%;/u,
      );
  });
});
