import { describe, expect, it } from 'vitest';
import { HOSTS } from '#core/embed/testing.ts';
import { readCarried } from './carried.ts';
import { carriedText, mayCarry } from './carried-text.ts';

const data = (texts: Readonly<Record<string, string>>, files: readonly File[] = []) => ({
  types: [...Object.keys(texts), ...(files.length > 0 ? ['Files'] : [])],
  getData: (type: string) => texts[type] ?? '',
  files: Object.assign([...files], { item: (at: number) => files[at] ?? null }),
});
const plain = (text: string) => data({ 'text/plain': text });
const kind = (carried: ReturnType<typeof data>) => readCarried(carried, HOSTS).kind;

describe('what a paste or a drop carries', () => {
  it.each([
    ['files, whatever is said of them', data({ 'text/plain': 'a.jpg' }, [new File(['x'], 'a.jpg')]), 'files'],
    ['the address of a known thing', plain('https://lanternreel.example/watch/a'), 'embeds'],
    ['code', plain('<iframe src="https://lanternreel.example/play/a"></iframe>'), 'embeds'],
    ['code of which nothing can be taken', plain('<script>x()</script>'), 'refused'],
    ['the address of any page', plain(' https://elsewhere.example/a\n'), 'address'],
    ['words', plain('The eel pass opens in April.'), 'nothing'],
    ['nothing', data({}), 'nothing'],
  ])('is known for %s', (_name, carried, expected) => {
    expect(kind(carried)).toBe(expected);
  });

  it('is the address of a link that is dragged, whatever it is called', () => {
    const link = data({
      'text/uri-list': '# the film\r\nhttps://lanternreel.example/watch/a\r\nhttps://elsewhere.example/b',
      'text/plain': 'How the eel pass works',
    });
    expect(carriedText(link)).toBe('https://lanternreel.example/watch/a');
    expect(kind(link)).toBe('embeds');
  });

  it('can be told from its types while it is dragged', () => {
    expect(mayCarry(plain('x'))).toBe(true);
    expect(mayCarry({ types: ['application/x-piece'] })).toBe(false);
  });
});
