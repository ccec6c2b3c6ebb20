import { describe, expect, it } from 'vitest';
import type { OwnSession } from '#api/people.ts';
import { drawn, wordsOf } from '../testing.tsx';
import { OwnPassword } from './own-password.tsx';
import { sayAgent } from './say-agent.ts';
import { SessionsCard } from './sessions-card.tsx';

const session = (change: Partial<OwnSession> = {}): OwnSession => ({
  key: 'one',
  isThis: false,
  signedInAt: '2026-03-11T09:00:00.000Z',
  seenAt: '2026-03-12T09:00:00.000Z',
  address: '192.0.2.7',
  agent: 'Mozilla/5.0 (X11; Linux x86_64)',
  ...change,
});

describe('one’s own sign-ins', () => {
  it('say from where, and are ended there, but not the one that is here', () => {
    const html = drawn(<SessionsCard />, [
      [['sessions'], [session({ isThis: true }), session({ key: 'two' })]],
    ]);
    expect(wordsOf(html)).toContain('A computer with Linux from 192.0.2.7');
    expect(wordsOf(html)).toContain('Here, now');
    expect(html.match(/>Sign out there</g)).toHaveLength(1);
  });

  it.each([
    ['Mozilla/5.0 (iPhone; CPU iPhone OS 19_0 like Mac OS X) Mobile/15E148', 'A phone or tablet with iOS'],
    ['Mozilla/5.0 (Windows NT 10.0; Win64; x64)', 'A computer with Windows'],
    ['Mozilla/5.0 (Linux; Android 16) Mobile', 'A phone or tablet with Android'],
    ['curl/8.5.0', 'curl/8.5.0'],
    ['', 'An unknown browser'],
  ])('%s is %s', (agent, words) => {
    expect(sayAgent(agent)).toBe(words);
  });
});

it('a password that was handed over is changed before anything else is shown', () => {
  const me = {
    id: 'joss',
    name: 'Joss Imrie',
    email: 'j@saltmere.example',
    role: 'contributor',
    mustChange: true,
  } as const;
  const words = wordsOf(drawn(<OwnPassword me={me} />));
  expect(words).toContain('Choose your own password');
  expect(words).toContain('Joss Imrie, the one you signed in with was made for you');
});
