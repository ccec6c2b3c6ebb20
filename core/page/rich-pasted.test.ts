import { describe, expect, it } from 'vitest';
import { offeredPicture } from './rich-pasted.ts';

const element = (said: Readonly<Record<string, string>>) => ({
  attributes: Object.entries(said).map(([name, value]) => ({ name, value })),
});
const image = (said: Readonly<Record<string, string>>, ...sources: readonly string[]) =>
  offeredPicture({ img: element(said), sources: sources.map((srcset) => element({ srcset })) });

describe('a picture of pasted text', () => {
  it('is had from its address, under its alt text or the name of its file', () => {
    expect(image({ src: 'https://tidewatch.example/a/grey%20heron.jpg?w=300', alt: ' A \n heron ' })).toEqual(
      {
        address: 'https://tidewatch.example/a/grey%20heron.jpg?w=300',
        words: 'A heron',
      },
    );
    expect(image({ src: '//tidewatch.example/grey%20heron.jpg' })).toEqual({
      address: 'https://tidewatch.example/grey%20heron.jpg',
      words: 'grey heron.jpg',
    });
  });

  it('is the largest that it names, and the real one where a placeholder stands in for it', () => {
    const at = (width: number) => `https://tidewatch.example/heron-${width}.jpg`;
    expect(
      image({ src: at(300), srcset: `${at(300)} 300w, ${at(1600)} 1600w, ${at(800)} 800w` }).address,
    ).toBe(at(1600));
    expect(image({ src: at(300), srcset: `${at(600)} 2x` }).address).toBe(at(600));
    expect(image({ src: at(300) }, 'relative.jpg 2x', `${at(1200)} 1200w`).address).toBe(at(1200));
    expect(image({ src: at(300), srcset: `${at(300)} 1x,${at(900)} 3x` }).address).toBe(at(900));
    expect(image({ src: 'https://tidewatch.example/blank.gif', 'data-original': at(800) }).address).toBe(
      at(800),
    );
    expect(image({ src: 'data:image/gif;base64,R0lGODlhAQABAAAAACw=', 'data-src': at(900) }).address).toBe(
      at(900),
    );
  });

  it('is taken out of the text where it lies in it', () => {
    expect(image({ src: 'data:image/png;base64,iVBORw0KGgo=' }).address).toBe(
      'data:image/png;base64,iVBORw0KGgo=',
    );
    expect(image({ src: 'data:text/html;base64,aaaa' }).address).toBe('');
  });

  it('is its words alone where it lies on another machine', () => {
    for (const src of ['file:///C:/Users/m/clip_image001.png', 'cid:clip_image001.png', 'clip_image001.png'])
      expect(image({ src })).toMatchObject({ address: '' });
    expect(image({ src: 'file:///C:/clip_image001.png' }).words).toBe('clip_image001.png');
    expect(image({ src: 'javascript:alert(1)' }).address).toBe('');
  });
});
