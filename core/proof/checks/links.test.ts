import { describe, expect, it } from 'vitest';
import { examplePage, PLAIN_RULES } from '../../page/testing.ts';
import { sayFinding } from '../say.ts';
import { checkLinks } from './links.ts';

/** What is found of a page with one paragraph, whose parts with an address are links. */
function found(...parts: readonly (readonly [words: string, href?: string])[]): readonly string[] {
  const page = examplePage({
    type: 'paragraph',
    attrs: { id: 'links' },
    content: parts.map(([text, href]) => ({
      type: 'text' as const,
      text,
      ...(href ? { marks: [{ type: 'link' as const, attrs: { href } }] } : {}),
    })),
  });
  return checkLinks({ page, rules: PLAIN_RULES, pieces: new Map(), html: '' }).map(
    (found) => sayFinding(found).sentence,
  );
}

describe('links that say nothing', () => {
  it.each(['here', 'Click here', 'READ MORE...', '» more', 'this link.', 'Learn more!'])(
    '“%s” is told of',
    (words) => {
      expect(found(['Tides: '], [words, '/tides'])).toEqual([`A link only says “${words}”.`]);
    },
  );

  it.each(['the tides this week', 'here are the tides', 'More about eels', 'Hide 4', 'Go to the hides'])(
    '“%s” passes',
    (words) => {
      expect(found([words, '/tides'])).toEqual([]);
    },
  );

  it('are one where their parts go to one address, and two where they do not', () => {
    expect(found(['Read ', '/a'], ['more', '/a'])).toEqual(['A link only says “Read more”.']);
    expect(found(['Read ', '/a'], ['more', '/b'])).toHaveLength(2);
    expect(found(['here', '/a'], [' and '], ['here', '/a'])).toHaveLength(2);
  });

  it('only counts what is linked', () => {
    expect(found(['Click here'])).toEqual([]);
  });
});
