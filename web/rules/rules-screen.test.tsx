import { describe, expect, it } from 'vitest';
import type { Role } from '#api/people.ts';
import { madeUpHosts } from '#core/embed/made-up-hosts.ts';
import type { HouseRules } from '#core/page/target.ts';
import { PLAIN_RULES } from '#core/page/testing.ts';
import { FINDING_NAMES } from '#core/proof/codes.ts';
import { drawn, wordsOf } from '../testing.tsx';
import { RulesScreen } from './rules-screen.tsx';

const DECISION = {
  scope: 'host',
  value: 'radio.example',
  reason: 'Friends of the reserve run it.',
  by: 'Sunniva Brandt',
  at: '2026-03-12T09:00:00.000Z',
} as const;

function rules(change: Partial<HouseRules> = {}, role: Role = 'site-owner'): string {
  const me = { id: 'sunniva', name: 'Sunniva Brandt', email: 'sunniva@saltmere.example', role };
  const entries = madeUpHosts((name) => `https://${name}.example`);
  return drawn(<RulesScreen />, [
    [['me'], me],
    [['targets'], [{ id: 'reserve', version: 1, rules: { ...PLAIN_RULES, ...change } }]],
    [['embed-hosts'], { version: 1, entries, decisions: [DECISION] }],
  ]);
}

describe('House rules', () => {
  it('name every finding, and how it counts', () => {
    const words = wordsOf(rules());
    for (const name of Object.values(FINDING_NAMES)) expect(words).toContain(name);
  });

  it('say what comes through of embeds', () => {
    expect(wordsOf(rules())).toContain('Frames of trusted hosts come through here.');
    const embeds = { frames: false, frameHosts: [], click: false, widgets: false };
    expect(wordsOf(rules({ embeds }))).toContain(
      'No frames come through here: a linked poster stands in their place.',
    );
  });

  it('list the trusted hosts, and what was decided with who and why', () => {
    const words = wordsOf(rules());
    expect(words).toContain('Lanternreel film lanternreel.example');
    expect(words).toContain(
      'radio.example Sunniva Brandt, 12 March 2026: Friends of the reserve run it. Take back',
    );
  });

  it('are read by everybody and changed by the site owner', () => {
    const html = rules({}, 'editor');
    expect(wordsOf(html)).toContain('Set by the site owner. You can read them here.');
    expect(wordsOf(html)).not.toMatch(/Save rules|Take back|Import entries/);
    expect(html).toMatch(/<fieldset disabled=""/);
  });

  it('give the hosts out as a file', () => {
    const href = /download="hosts.json" href="([^"]+)"/.exec(rules())?.[1] ?? '';
    const text = decodeURIComponent(href.slice(href.indexOf(',') + 1))
      .replaceAll('&#x27;', "'")
      .replaceAll('&amp;', '&');
    expect(JSON.parse(text)).toHaveLength(4);
  });
});
