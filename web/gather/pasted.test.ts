import { describe, expect, it } from 'vitest';
import { pastedAddress, pastedPictures } from './pasted.ts';

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

describe('pictures in pasted text', () => {
  it('are found by their addresses, each once', () => {
    const html = `<p><img alt="x" src="http://a.localhost/1.jpg?w=2&amp;h=3"><IMG SRC='http://a.localhost/2.jpg'>
      <img src="http://a.localhost/1.jpg?w=2&amp;h=3"></p>`;
    expect(pastedPictures(html)).toEqual(['http://a.localhost/1.jpg?w=2&h=3', 'http://a.localhost/2.jpg']);
  });

  it.each([
    '<img src="data:image/png;base64,AAAA">',
    '<img src="javascript:alert(1)">',
    '<img src="file:///etc/x.png">',
    '<img>',
  ])('are none in %s', (html) => {
    expect(pastedPictures(html)).toEqual([]);
  });

  it('are at most fifty', () => {
    const many = Array.from({ length: 80 }, (_, at) => `<img src="http://a.localhost/${at}.jpg">`).join('');
    expect(pastedPictures(many)).toHaveLength(50);
  });
});
