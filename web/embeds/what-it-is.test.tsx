// @vitest-environment jsdom
import { afterEach, describe, expect, it } from 'vitest';
import { entryById } from '#core/embed/host.ts';
import { settingsOf } from '#core/embed/settings.ts';
import { HOSTS, readOne } from '#core/embed/testing.ts';
import { EN } from '#core/messages/en.ts';
import { allOf, mount, statesOf, unmount } from '../mounted.tsx';
import { EmbedFields, Statements } from './what-it-is.tsx';

afterEach(unmount);

const fields = (pasted: string) => {
  const { embed, unknown, notGiven } = readOne(pasted);
  return mount(
    <EmbedFields
      embed={embed}
      entry={entryById(embed.host, HOSTS)}
      settings={settingsOf(embed, HOSTS)}
      unknown={unknown}
      notGiven={notGiven}
      messages={EN}
      change={() => undefined}
    />,
  );
};
/** What stands in the fields or, where nothing does, what would. */
const written = (ground: HTMLElement) =>
  [...ground.querySelectorAll('input')].map(({ value, placeholder }) => value || placeholder);

describe('the fields of an embed', () => {
  it('are those of its host, as they stand in the address', () => {
    const ground = fields('https://lanternreel.example/watch/a?start=80&cc=1');
    expect(written(ground)).toEqual(['Film from Lanternreel', '1:20', '16 : 9']);
    expect(statesOf(ground, 'checkbox')).toEqual([
      'on: Captions on from the start',
      'off: More films at the end',
      'on: Load only when clicked',
    ]);
  });

  it('offer what nobody knows, and what it asked for, unticked', () => {
    const ground = fields('<iframe src="https://lanternreel.example/play/a?pace=2" allow="camera"></iframe>');
    expect(statesOf(ground, 'checkbox')).toContain('off: Keep pace=2, of which nobody knows what it does');
    expect(statesOf(ground, 'checkbox')).toContain('off: It may use the camera');
  });

  it('of a thing without an entry are its title, its shape and its click', () => {
    const ground = fields('https://elsewhere.example/a');
    expect(written(ground)).toEqual(['Page from elsewhere.example', '480 px']);
    expect(statesOf(ground, 'checkbox')).toEqual(['off: Load only when clicked']);
  });
});

describe('statements', () => {
  it('are a numbered list, of which those that want a look are marked', () => {
    const ground = mount(
      <Statements
        statements={[
          { about: 'thing', text: 'Plays a film.', detail: '', isDue: false },
          { about: 'framing', text: 'Refuses to be framed.', detail: 'It says DENY.', isDue: true },
        ]}
      />,
    );
    expect(allOf(ground, 'listitem').map((one) => [one.textContent, one.dataset.due])).toEqual([
      ['Plays a film.', 'false'],
      ['Refuses to be framed.It says DENY.', 'true'],
    ]);
  });
});
