import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import { readPasted } from '#core/embed/reading.ts';
import { HOSTS } from '#core/embed/testing.ts';
import { LeftOut, PastedBox } from './pasted-box.tsx';

const CODE =
  '<iframe src="http://lanternreel.example/play/a?start=42&trk=x" allow="camera" onload="track()"></iframe><script>x()</script>';
const marksOf = (text: string) => readPasted(text, HOSTS).marks;
const box = (text: string) =>
  renderToStaticMarkup(<PastedBox text={text} marks={marksOf(text)} onChange={() => undefined} />);

/** What is marked in the layer under the field, as `as: text`. */
function marked(html: string): readonly string[] {
  return [...html.matchAll(/<span data-as="(\w+)"[^>]*>(.*?)<\/span>/g)].map(
    ([, as, text = '']) =>
      `${as}: ${text.replaceAll('&lt;', '<').replaceAll('&gt;', '>').replaceAll('&quot;', '"').replaceAll('&amp;', '&')}`,
  );
}

describe('the pasted text', () => {
  it('has its facts and what does not come along marked in it', () => {
    expect(marked(box(CODE))).toEqual([
      'dropped: http:',
      'fact: //lanternreel.example/play/a',
      'fact: start=42',
      'dropped: trk=x',
      'dropped: camera',
      'dropped: onload="track()"',
      'dropped: <script>x()</script>',
    ]);
  });

  it('stands whole under the field, letter by letter, so that both wrap alike', () => {
    const under = /aria-hidden="true">([\s\S]*?)<\/div>/.exec(box(CODE))?.[1] ?? '';
    const letters = under
      .replace(/<\/?span[^>]*>/g, '')
      .replaceAll('&lt;', '<')
      .replaceAll('&gt;', '>')
      .replaceAll('&quot;', '"')
      .replaceAll('&amp;', '&');
    expect(letters).toBe(`${CODE}\n`);
  });

  it('is never read as markup of our own', () => {
    expect(box(CODE)).not.toMatch(/<iframe|<script/);
  });

  it('of great length is shown without marks', () => {
    expect(marked(box(CODE + 'x'.repeat(60_000)))).toEqual([]);
  });
});

describe('what does not come along', () => {
  it('is listed in words, each with why', () => {
    const html = renderToStaticMarkup(<LeftOut text={CODE} marks={marksOf(CODE)} />);
    expect(html).toContain('5 parts do not come along');
    expect(html).toContain('Programs never come along.');
    expect(html).toContain('It only tells who shared the address.');
  });

  it('is not spoken of where there is nothing of it', () => {
    const text = 'https://lanternreel.example/watch/a';
    expect(renderToStaticMarkup(<LeftOut text={text} marks={marksOf(text)} />)).toBe('');
  });

  it('is cut where it is long', () => {
    const text = `<script>${'x'.repeat(500)}</script>https://a.example/`;
    expect(renderToStaticMarkup(<LeftOut text={text} marks={marksOf(text)} />)).toContain('…</code>');
  });
});
