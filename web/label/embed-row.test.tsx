// @vitest-environment jsdom
import { afterEach, describe, expect, it } from 'vitest';
import { FORM_WORDS } from '#core/embed/forms.ts';
import { HOSTS, readOne } from '#core/embed/testing.ts';
import type { HeldEmbed } from '#core/page/piece.ts';
import { columnRoom } from '#core/page/room.ts';
import type { HouseRules } from '#core/page/target.ts';
import { examplePlacement, PLAIN_RULES } from '#core/page/testing.ts';
import { allOf, byRole, mount, opened, unmount } from '../mounted.tsx';
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
  room: columnRoom(PLAIN_RULES),
  change: () => undefined,
  paragraphs: 1,
  paragraph: 1,
  move: () => undefined,
  remove: () => undefined,
};

afterEach(unmount);

const row = (change: {
  readonly rules?: HouseRules;
  readonly use?: Use | null;
  readonly isEditable?: boolean;
}) =>
  mount(
    <EmbedRow
      asset={{ id: 'film' }}
      held={held}
      rules={PLAIN_RULES}
      use={use}
      isEditable={true}
      {...change}
    />,
  );
/** The forms that are offered, of which the first stands here. */
const forms = async (ground: HTMLElement) =>
  (await opened(byRole(ground, 'combobox', 'Stands here as'))).map(({ textContent }) => textContent);

describe('the embed row of a label', () => {
  it('says what is embedded, and offers the forms that are open on the target', async () => {
    const ground = row({});
    expect(ground.textContent).toContain('A film at Lanternreel, on the list of trusted hosts.');
    expect(ground.querySelector('a')?.getAttribute('href')).toBe('/embeds?piece=film&page=page&use=one');
    expect(byRole(ground, 'combobox', 'Stands here as').textContent).toBe(FORM_WORDS.click);
    expect(await forms(ground)).toEqual([
      FORM_WORDS.click,
      FORM_WORDS.frame,
      FORM_WORDS.poster,
      FORM_WORDS.link,
    ]);
  });

  it('offers no frame where none comes through, and says why', async () => {
    const rules = { ...PLAIN_RULES, embeds: { frames: false, frameHosts: [], click: false, widgets: false } };
    expect(await forms(row({ rules }))).toEqual([FORM_WORDS.poster, FORM_WORDS.link]);
    expect(row({ rules }).textContent).toContain('Reserve site lets no frames through.');
  });

  it('only says the form to those who may not change it, and on the shelf', () => {
    expect(allOf(row({ isEditable: false }), 'combobox')).toEqual([]);
    expect(row({ use: null }).textContent).toContain('A poster that becomes the frame when it is clicked.');
  });
});
