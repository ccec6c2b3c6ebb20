import { describe, expect, it } from 'vitest';
import { examplePage, examplePiece, examplePlacement, PLAIN_RULES } from '../page/testing.ts';
import { proofInput } from './input.ts';
import { spoken } from './spoken.ts';

const said = (html: string) =>
  spoken(html).map(({ role, words, depth }) =>
    `${'  '.repeat(depth)}${[role, words].filter(Boolean).join(': ')}`.trimEnd(),
  );

describe('what a page says to those who hear it', () => {
  it('is said in the order of the HTML, headings with their level, and lines as they run', () => {
    expect(
      said(
        '<h1>Bitterns</h1><p>They <em>boom</em> at <a href="/x">dawn</a>, <span lang="de">Rohrdommel</span>.</p><h2>Count</h2>',
      ),
    ).toEqual([
      'Heading, level 1: Bitterns',
      'They boom at (link: dawn), (in de: Rohrdommel).',
      'Heading, level 2: Count',
    ]);
  });

  it('says a picture by its words, passes over a decorative one, and its caption after it', () => {
    expect(
      said(
        '<figure><picture><source srcset="a"><img src="a" alt="A heron."></picture><figcaption>Dawn. <small>Photo: Ines</small></figcaption></figure><figure><img alt=""></figure>',
      ),
    ).toEqual(['Picture: A heron.', 'Caption: Dawn. Photo: Ines']);
  });

  it('says a long description as what is in it, its table cell by cell under its headings', () => {
    expect(
      said(
        '<details><summary>Description of Eels</summary><p>By month.</p><ul><li>May</li><li>June</li></ul><div role="region" aria-label="x"><table><thead><tr><th scope="col">Month</th><th scope="col">Eels</th></tr></thead><tbody><tr><th scope="row">May</th><td>12</td></tr></tbody></table></div></details>',
      ),
    ).toEqual([
      'Folded part: Description of Eels',
      '  By month.',
      '  List of 2',
      '    May',
      '    June',
      '  Table, 2 rows of 2',
      '    Row: Month May; Eels 12',
    ]);
  });

  it('says where a link round a picture leads, and all that is in one round a card', () => {
    expect(said('<a href="/hides"><img alt="Plan of the hides"></a>')).toEqual([
      'Link, picture: Plan of the hides',
    ]);
    expect(
      said('<a href="/hides"><figure><img alt="A hide"></figure><h3>Hides</h3><p>Open.</p></a>'),
    ).toEqual(['Link', '  Picture: A hide', '  Heading, level 3: Hides', '  Open.']);
  });

  it('says frames and buttons by their names, and nothing of what is hidden or drawn alone', () => {
    expect(
      said(
        '<iframe title="Tide at the sluice"></iframe><button aria-label="Play the film"></button><span aria-hidden="true">x</span><p hidden>y</p><script>z()</script><hr>',
      ),
    ).toEqual(['Frame: Tide at the sluice', 'Button: Play the film', 'A line between']);
  });

  it('is said of the very HTML that goes out, each thing with the block it stands in', () => {
    const piece = examplePiece({
      label: { alt: { kind: 'text', text: 'Bars for each month.' }, extendedDescription: 'May\t4\nJune\t7' },
    });
    const page = examplePage({
      type: 'placement',
      attrs: examplePlacement('column', { asset: piece.id }),
    });
    const { html } = proofInput(page, PLAIN_RULES, new Map([[piece.id, piece]]), new Date('2026-05-01'));
    const all = spoken(html);
    const picture = all.find(({ role }) => role === 'Picture');
    expect(picture).toMatchObject({ words: 'Bars for each month.' });
    expect(picture?.block).not.toBeNull();
    expect(all.map(({ role, words }) => `${role}: ${words}`)).toEqual([
      'Heading, level 1: Bitterns',
      'Picture: Bars for each month.',
      'Caption: Photo: Ines Okonjo, (link: CC BY 4.0).',
      'Folded part: Description of Heron',
      'Table, 2 rows of 2: ',
      'Row: May; 4',
      'Row: June; 7',
    ]);
  });
});
