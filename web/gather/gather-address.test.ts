import { describe, expect, it } from 'vitest';
import { queryOf, readAsked, withAsked } from './gather-address.ts';

const WANT = {
  id: 'lead',
  purpose: 'Lead: the boardwalk at dawn',
  shape: 'landscape',
  leastWidth: 1600,
  filledBy: null,
} as const;
const asked = (text: string, want: typeof WANT | null = null, commercial = true) =>
  readAsked(new URLSearchParams(text), { commercial, want });

describe('what Gather is asked', () => {
  it('is what the want needs, until the address says otherwise', () => {
    expect(asked('', WANT).question).toMatchObject({
      commercial: true,
      shape: 'landscape',
      leastWidth: 1600,
    });
    expect(asked('', WANT).question.words).toContain('boardwalk');
    expect(asked('words=heron&shape=portrait&leastWidth=0&commercial=no', WANT).question).toMatchObject({
      words: 'heron',
      shape: 'portrait',
      leastWidth: 0,
      commercial: false,
    });
  });

  it('follows the target on commercial use, and asks for what may be changed', () => {
    expect(asked('', null, false).question).toMatchObject({ commercial: false, changes: true, shape: 'any' });
  });

  it.each([
    ['a width that is none', 'leastWidth=wide'],
    ['half a px', 'leastWidth=12.5'],
    ['less than nothing', 'leastWidth=-1'],
    ['more than any picture has', 'leastWidth=99999'],
  ])('passes over %s', (_, text) => {
    expect(asked(text).question.leastWidth).toBe(0);
  });

  it.each(['shape=round', 'commercial=maybe', 'changes='])('passes over %s', (text) => {
    expect(asked(text).question).toMatchObject({ shape: 'any', commercial: true, changes: true });
  });

  it('comes back from the address that it is written to', () => {
    const { question } = asked('words=reed bed&shape=square&leastWidth=800&commercial=no&changes=no');
    expect(asked(String(new URLSearchParams(queryOf(question)))).question).toEqual(question);
  });

  it('is changed without losing what else the address says', () => {
    const next = withAsked(new URLSearchParams('page=p&words=heron&from=wayside'), {
      words: 'reed',
      from: null,
    });
    expect(String(next)).toBe('page=p&words=reed');
  });
});
