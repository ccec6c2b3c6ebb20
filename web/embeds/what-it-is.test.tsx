import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import { entryById } from '#core/embed/host.ts';
import { HOSTS, readOne } from '#core/embed/testing.ts';
import { EmbedFields, Statements } from './what-it-is.tsx';

const fields = (pasted: string) => {
  const { embed, unknown, notGiven } = readOne(pasted);
  return renderToStaticMarkup(
    <EmbedFields
      embed={embed}
      entry={entryById(embed.host, HOSTS)}
      unknown={unknown}
      notGiven={notGiven}
      change={() => undefined}
    />,
  );
};
const checks = (html: string) =>
  [...html.matchAll(/<label class="check"><input type="checkbox"( checked="")?\/>(.*?)<\/label>/g)].map(
    ([, checked, words = '']) => `${checked ? 'on' : 'off'}: ${words.replace(/<[^>]+>/g, '')}`,
  );

describe('the fields of an embed', () => {
  it('are those of its host, as they stand in the address', () => {
    const html = fields('https://lanternreel.example/watch/a?start=80&cc=1');
    expect(html).toContain('value="1:20"');
    expect(html).toContain('value="16 : 9"');
    expect(html).toContain('placeholder="Film from Lanternreel"');
    expect(checks(html)).toEqual([
      'on: Captions on from the start',
      'off: More films at the end',
      'on: Load only when clicked',
    ]);
  });

  it('offer what nobody knows, and what it asked for, unticked', () => {
    const html = fields('<iframe src="https://lanternreel.example/play/a?pace=2" allow="camera"></iframe>');
    expect(checks(html)).toContain('off: Keep pace=2, of which nobody knows what it does');
    expect(checks(html)).toContain('off: It may use the camera');
  });

  it('of a thing without an entry are its title, its shape and its click', () => {
    const html = fields('https://elsewhere.example/a');
    expect(html).toContain('placeholder="Page from elsewhere.example"');
    expect(html).toContain('value="480 px"');
    expect(checks(html)).toEqual(['off: Load only when clicked']);
  });
});

describe('statements', () => {
  it('are a numbered list, of which those that want a look are marked', () => {
    const html = renderToStaticMarkup(
      <Statements
        statements={[
          { about: 'thing', text: 'Plays a film.', detail: '', isDue: false },
          { about: 'framing', text: 'Refuses to be framed.', detail: 'It says DENY.', isDue: true },
        ]}
      />,
    );
    expect(html).toBe(
      '<ol class="statements"><li data-due="false"><b class="statement-text">Plays a film.</b></li><li data-due="true"><b class="statement-text">Refuses to be framed.</b><span class="statement-detail">It says DENY.</span></li></ol>',
    );
  });
});
