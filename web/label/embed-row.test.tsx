import { renderToStaticMarkup } from 'react-dom/server';
import { MemoryRouter } from 'react-router';
import { describe, expect, it } from 'vitest';
import { HOSTS, readOne } from '#core/embed/testing.ts';
import type { HeldEmbed } from '#core/page/embed-here.ts';
import type { HouseRules } from '#core/page/target.ts';
import { examplePlacement, PLAIN_RULES } from '#core/page/testing.ts';
import { EmbedRow } from './embed-row.tsx';
import type { Use } from './row.tsx';

const held: HeldEmbed = {
  embed: readOne('https://lanternreel.example/watch/a').embed,
  hosts: HOSTS,
  framing: {},
  poster: 'host',
};
const use: Use = {
  pageId: 'page',
  placement: examplePlacement('column'),
  change: () => undefined,
  paragraphs: 1,
  paragraph: 1,
  move: () => undefined,
  remove: () => undefined,
};

const row = (change: {
  readonly rules?: HouseRules;
  readonly use?: Use | null;
  readonly isEditable?: boolean;
}) =>
  renderToStaticMarkup(
    <MemoryRouter>
      <EmbedRow
        asset={{ id: 'film' }}
        held={held}
        rules={PLAIN_RULES}
        use={use}
        isEditable={true}
        {...change}
      />
    </MemoryRouter>,
  );
const options = (html: string) =>
  [...html.matchAll(/<option value="(\w+)"( selected="")?>/g)].map(
    ([, form, chosen]) => `${form}${chosen ? ' *' : ''}`,
  );

describe('the embed row of a label', () => {
  it('says what is embedded, and offers the forms that are open on the target', () => {
    const html = row({});
    expect(html).toContain('A film at Lanternreel, on the list of trusted hosts.');
    expect(options(html)).toEqual(['click *', 'frame', 'poster', 'link']);
    expect(html).toContain('href="/embeds?piece=film"');
  });

  it('offers no frame where none comes through, and says why', () => {
    const rules = { ...PLAIN_RULES, embeds: { frames: false, frameHosts: [], click: false, widgets: false } };
    expect(options(row({ rules }))).toEqual(['poster *', 'link']);
    expect(row({ rules })).toContain('Reserve site lets no frames through.');
  });

  it('only says the form to those who may not change it, and on the shelf', () => {
    expect(options(row({ isEditable: false }))).toEqual([]);
    expect(row({ use: null })).toContain('A poster that becomes the frame when it is clicked.');
  });
});
