import { describe, expect, it } from 'vitest';
import { type FramingAnswer, framingOf, isMixedContent } from './framing.ts';

const OWN = 'https://fathomchart.example/frame/a';
const PARENT = 'https://reserve.example';

function ask(answer: Partial<FramingAnswer>, parent = PARENT): string {
  return framingOf({ address: OWN, status: 200, frameOptions: [], policies: [], ...answer }, parent).kind;
}

describe('X-Frame-Options', () => {
  it.each([
    [[], 'may'],
    [['DENY'], 'refused'],
    [['deny'], 'refused'],
    [['SAMEORIGIN'], 'refused'],
    [['ALLOWALL'], 'may'],
    [['ALLOW-FROM https://reserve.example'], 'may'],
    [['nonsense'], 'may'],
    [['SAMEORIGIN, DENY'], 'refused'],
    [['ALLOWALL', 'SAMEORIGIN'], 'refused'],
    [['DENY, DENY'], 'refused'],
    [['nonsense, other'], 'may'],
  ])('%j is %s', (frameOptions, kind) => {
    expect(ask({ frameOptions })).toBe(kind);
  });

  it('lets the same origin through', () => {
    expect(ask({ frameOptions: ['SAMEORIGIN'] }, 'https://fathomchart.example')).toBe('may');
  });
});

describe('frame-ancestors', () => {
  it.each([
    ["frame-ancestors 'none'", 'refused'],
    ['frame-ancestors', 'refused'],
    ["frame-ancestors 'self'", 'refused'],
    ['frame-ancestors *', 'may'],
    ['frame-ancestors https:', 'may'],
    ['frame-ancestors http:', 'may'],
    ['frame-ancestors data:', 'refused'],
    ['frame-ancestors https://reserve.example', 'may'],
    ['frame-ancestors http://reserve.example', 'may'],
    ['frame-ancestors https://reserve.example:443', 'may'],
    ['frame-ancestors https://reserve.example:8443', 'refused'],
    ['frame-ancestors https://reserve.example:*', 'may'],
    ['frame-ancestors https://reserve.example/any/path', 'may'],
    ['frame-ancestors reserve.example', 'may'],
    ['frame-ancestors *.example', 'may'],
    ['frame-ancestors *.reserve.example', 'refused'],
    ['frame-ancestors https://other.example https://reserve.example', 'may'],
    ['frame-ancestors https://other.example', 'refused'],
    ['frame-ancestors https://reserve.example.other.example', 'refused'],
    ["default-src 'none'", 'may'],
    ["default-src 'self'; FRAME-ANCESTORS 'none'", 'refused'],
    ["frame-ancestors *; frame-ancestors 'none'", 'may'],
    ["frame-ancestors *, frame-ancestors 'none'", 'refused'],
  ])('%s is %s', (policy, kind) => {
    expect(ask({ policies: [policy] })).toBe(kind);
  });

  it('has to be let through by every policy', () => {
    expect(ask({ policies: ['frame-ancestors *', "frame-ancestors 'none'"] })).toBe('refused');
  });

  it('stands before X-Frame-Options', () => {
    expect(ask({ policies: ['frame-ancestors *'], frameOptions: ['DENY'] })).toBe('may');
    expect(ask({ policies: ["default-src 'self'"], frameOptions: ['DENY'] })).toBe('refused');
  });

  it('asks for the port that a page of the machine itself has', () => {
    const own = { address: 'http://fathomchart.localhost:4401/frame/a' };
    expect(
      ask(
        { ...own, policies: ['frame-ancestors http://reserve.localhost:4401'] },
        'http://reserve.localhost:4401',
      ),
    ).toBe('may');
    expect(
      ask({ ...own, policies: ['frame-ancestors reserve.localhost'] }, 'http://reserve.localhost:4401'),
    ).toBe('refused');
    expect(ask({ ...own, policies: ["frame-ancestors 'self'"] }, 'http://fathomchart.localhost:4401')).toBe(
      'may',
    );
  });
});

describe('the status', () => {
  it.each([
    [200, 'may'],
    [401, 'private'],
    [403, 'private'],
    [404, 'gone'],
    [410, 'gone'],
    [429, 'silent'],
    [503, 'silent'],
  ])('%i is %s', (status, kind) => {
    expect(ask({ status })).toBe(kind);
  });
});

it('plain http in a secure page is mixed content, but for the machine itself', () => {
  expect(isMixedContent('http://fathomchart.example/', PARENT)).toBe(true);
  expect(isMixedContent('http://fathomchart.localhost:4401/', PARENT)).toBe(false);
  expect(isMixedContent(OWN, PARENT)).toBe(false);
});
