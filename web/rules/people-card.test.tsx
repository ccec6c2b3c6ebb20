import { describe, expect, it } from 'vitest';
import type { Colleague } from '#api/people.ts';
import { readHostEntries } from '#core/embed/host.ts';
import { drawn, wordsOf } from '../testing.tsx';
import { EXAMPLE_ENTRY } from './example-entry.ts';
import { PeopleCard } from './people-card.tsx';

const person = (id: string, name: string, change: Partial<Colleague> = {}): Colleague => ({
  id,
  name,
  email: `${id}@saltmere.example`,
  role: 'editor',
  left: false,
  ...change,
});
const card = (...people: readonly Colleague[]) =>
  drawn(<PeopleCard />, [
    [['me'], { id: 'sunniva', name: 'Sunniva Brandt', email: 's@saltmere.example', role: 'site-owner' }],
    [['people'], people],
  ]);

describe('people in House rules', () => {
  const sunniva = person('sunniva', 'Sunniva Brandt', { role: 'site-owner' });

  it('stand with their role, and what can be done for each', () => {
    const html = card(person('mara', 'Mara Oduya'), sunniva);
    expect(wordsOf(html)).toContain('Mara Oduya mara@saltmere.example');
    expect(html).toContain('aria-label="Role of Mara Oduya"');
    expect(html).toContain('aria-label="New password for Mara Oduya"');
    expect(html).not.toContain('aria-label="Remove Sunniva Brandt"');
  });

  it('who left stand apart, and can come back', () => {
    const html = card(sunniva, person('joss', 'Joss Imrie', { left: true }));
    expect(wordsOf(html)).toContain('Left, and signing in no more: Joss Imrie Reinstate');
    expect(html).not.toContain('Role of Joss Imrie');
  });
});

it('the example of a host entry is one', () => {
  expect(readHostEntries(JSON.stringify(EXAMPLE_ENTRY))).toEqual({
    kind: 'entries',
    entries: [EXAMPLE_ENTRY],
  });
});
