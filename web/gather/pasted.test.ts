import { describe, expect, it } from 'vitest';
import { pastedAddress } from './pasted.ts';

describe('an address that is pasted', () => {
  it.each([
    ['http://wayside.localhost/plates/135', 'http://wayside.localhost/plates/135'],
    ['  https://anysite.localhost/picture/plain.jpg\n', 'https://anysite.localhost/picture/plain.jpg'],
  ])('is known in %j', (text, address) => {
    expect(pastedAddress(text)).toBe(address);
  });

  it.each([
    'see http://a.localhost/',
    'http://',
    'javascript:alert(1)',
    'ftp://a.localhost/x',
    'data:text/html,x',
    '',
  ])('is none in %j', (text) => {
    expect(pastedAddress(text)).toBe('');
  });
});
