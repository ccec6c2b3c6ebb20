import { describe, expect, it } from 'vitest';
import { isHost, readHostEntries } from './host.ts';
import { madeUpHosts } from './made-up-hosts.ts';

describe('a host', () => {
  it.each([
    ['films.example', 'films.example', true],
    ['films.example', 'www.films.example', false],
    ['*.films.example', 'www.films.example', true],
    ['*.films.example', 'films.example', false],
    ['*.films.example', 'xfilms.example', false],
    ['films.example', 'films.example:8080', false],
    ['films.example:8080', 'films.example:8080', true],
  ])('%s and %s: %s', (pattern, host, is) => {
    expect(isHost(pattern, host)).toBe(is);
  });
});

describe('entries', () => {
  const entries = madeUpHosts((name) => `https://${name}.example`);

  it('are read as they were written', () => {
    expect(readHostEntries(JSON.stringify(entries))).toEqual({ kind: 'entries', entries });
    expect(readHostEntries(JSON.stringify(entries[0]))).toEqual({
      kind: 'entries',
      entries: entries.slice(0, 1),
    });
  });

  it.each([
    ['no JSON', 'This file is not JSON.'],
    ['{"id": "a"}', 'at 0.'],
    [JSON.stringify({ ...entries[0], origin: 'http://films.example' }), 'origin'],
    [JSON.stringify({ ...entries[0], origin: 'https://films.example/path' }), 'origin'],
    [JSON.stringify({ ...entries[0], sandbox: ['allow-top-navigation'] }), 'sandbox'],
    [JSON.stringify({ ...entries[0], allow: ['everything'] }), 'allow'],
    [JSON.stringify({ ...entries[0], hosts: ['*'] }), 'hosts'],
    [
      JSON.stringify({
        ...entries[0],
        addresses: [{ match: ['/a'], frame: '//elsewhere.example', page: '/a' }],
      }),
      'addresses',
    ],
    [JSON.stringify({ ...entries[0], extra: 1 }), 'extra'],
  ])('that do not fit are refused with their place, and nothing is taken (%#)', (text, said) => {
    const read = readHostEntries(text);
    expect(read.kind === 'fault' && read.sentence).toContain(said);
    expect(read.kind === 'fault' && read.sentence).toContain('othing was taken');
  });
});
