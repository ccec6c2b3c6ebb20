import { describe, expect, it } from 'vitest';
import { openRegistry } from './registry.ts';

const find = openRegistry([
  {
    provider_name: 'Films',
    endpoints: [
      {
        schemes: ['https://films.example/watch/*', 'https://*.films.example/v/*/'],
        url: 'https://films.example/oembed.{format}',
      },
    ],
  },
  {
    provider_name: 'Sounds',
    endpoints: [{ schemes: ['https://sounds.example/*/track-*'], url: 'https://sounds.example/o' }],
  },
  { provider_name: 'Silent', endpoints: [{ url: 'https://silent.example/o' }] },
  { provider_name: 'Odd', endpoints: 'none' },
]);

describe('the registry', () => {
  it.each([
    ['https://films.example/watch/a', 'https://films.example/oembed.json'],
    ['https://films.example/watch/a/b?c', 'https://films.example/oembed.json'],
    ['https://m.films.example/v/a/', 'https://films.example/oembed.json'],
    ['https://sounds.example/by/track-1', 'https://sounds.example/o'],
    ['https://films.example/', undefined],
    ['https://m.films.example/v/a', undefined],
    ['https://elsewhere.example/.films.example/v/a/', undefined],
    ['https://xfilms.example/watch/a', undefined],
    ['https://silent.example/a', undefined],
    ['not an address', undefined],
  ])('of %s says %s', (address, endpoint) => {
    expect(find(address)).toBe(endpoint);
  });

  it('that is none knows nobody', () => {
    expect(openRegistry({ not: 'a list' })('https://films.example/watch/a')).toBeUndefined();
  });
});
