import { describe, expect, it } from 'vitest';
import type { FormCase } from './forms.ts';
import type { Framing } from './framing.ts';
import { entryById } from './host.ts';
import type { EmbedFacts } from './model.ts';
import type { ReadEmbed } from './reading.ts';
import { sayEmbed, sayWhatItIs } from './say.ts';
import { HOSTS, readOne, TARGET } from './testing.ts';

const BULLETIN = {
  ...TARGET,
  name: 'Members’ bulletin',
  embeds: { frames: false, frameHosts: [], click: false, widgets: false },
};

interface Told {
  readonly facts?: Partial<EmbedFacts>;
  readonly framing?: Framing | null;
  readonly asked?: 'not-yet' | 'answered' | 'silent';
  readonly elsewhere?: readonly FormCase['target'][];
}

function said(
  pasted: string | ReadEmbed,
  { facts = {}, framing = null, asked = 'answered', elsewhere = [] }: Told = {},
) {
  const read = typeof pasted === 'string' ? readOne(pasted) : pasted;
  const embed = { ...read.embed, facts: { ...read.embed.facts, ...facts } };
  const caseOn = (target: FormCase['target']): FormCase => ({
    embed,
    target,
    hosts: HOSTS,
    framing,
    hasPoster: true,
  });
  return sayEmbed({
    ...caseOn(TARGET),
    trust: read.trust,
    notGiven: read.notGiven,
    notes: read.notes,
    asked,
    elsewhere: elsewhere.map(caseOn),
  });
}

const about = (statements: ReturnType<typeof sayEmbed>, what: string) =>
  statements.find((one) => one.about === what);
const FILM = 'https://lanternreel.example/watch/eel-pass-71?start=42';
const FACTS = {
  title: 'How the eel pass works',
  seconds: 200,
  captions: ['en', 'cy'],
  visibility: 'public',
} as const;

describe('a film', () => {
  it('is said with its title, its length, its start and its captions', () => {
    expect(
      about(said(FILM, { facts: { ...FACTS, captions: ['en', 'cy'], author: 'Joss Imrie' } }), 'thing'),
    ).toEqual({
      about: 'thing',
      text: 'Plays “How the eel pass works”, 3 min 20 s, from 0:42.',
      detail: 'Answered by its host just now. By Joss Imrie. Captions: English, Welsh.',
      isDue: false,
    });
  });

  it('without captions wants a look', () => {
    expect(about(said(FILM, { facts: { ...FACTS, captions: [] } }), 'thing')).toMatchObject({
      detail: 'Answered by its host just now. It has no captions.',
      isDue: true,
    });
  });

  it.each([
    ['not-yet', 'Its host is being asked.'],
    ['silent', 'Its host did not answer.'],
  ] as const)('whose host is %s is said by its kind', (asked, detail) => {
    expect(about(said(FILM, { asked }), 'thing')).toMatchObject({ text: 'Plays a film, from 0:42.', detail });
  });

  it.each([
    ['by-link', 'Is only for those who have its address.'],
    ['private', 'Is private: readers would see nothing.'],
  ] as const)('that is %s says so', (visibility, text) => {
    expect(about(said(FILM, { facts: { visibility } }), 'visibility')).toMatchObject({ text, isDue: true });
  });
});

describe('what it gets', () => {
  it('is said in words, and what it asked for and does not get too', () => {
    const code =
      '<iframe src="https://lanternreel.example/play/a" allow="camera; microphone; autoplay; fullscreen"></iframe>';
    const statements = said(code);
    expect(about(statements, 'grants')?.text).toBe(
      'May run its scripts, keep its own cookies, show on another screen, start by itself and go full screen.',
    );
    expect(about(statements, 'not-given')?.text).toBe(
      'Does not get to use the camera or use the microphone.',
    );
  });

  it('of a widget is a closed page', () => {
    expect(about(said('https://murmurline.example/m/a'), 'grants')?.text).toBe(
      'Runs its host’s script in a closed page.',
    );
  });

  it('is not said where it is not framed', () => {
    const refused = { kind: 'refused', by: 'X-Frame-Options', value: 'DENY' } as const;
    expect(about(said(FILM, { framing: refused }), 'grants')).toBeUndefined();
    expect(about(said('https://elsewhere.example/a'), 'grants')).toBeUndefined();
  });
});

describe('whether it can be framed', () => {
  it.each([
    [{ kind: 'may', why: 'nothing-said' }, 'Can be framed on Reserve site.', false],
    [{ kind: 'may', why: 'named' }, 'Can be framed on Reserve site.', false],
    [
      { kind: 'refused', by: 'X-Frame-Options', value: 'DENY' },
      'Refuses to be framed on Reserve site.',
      true,
    ],
    [{ kind: 'gone', status: 404 }, 'Is not there any more.', true],
    [{ kind: 'private', status: 403 }, 'Cannot be shown to readers.', true],
    [{ kind: 'silent', status: 503 }, 'Could not be asked whether it may be framed.', true],
  ] as const)('%j is said', (framing, text, isDue) => {
    expect(about(said(FILM, { framing }), 'framing')).toMatchObject({ text, isDue });
  });

  it('is not said before it was asked', () => {
    expect(about(said(FILM), 'framing')).toBeUndefined();
  });

  it('elsewhere is only said where it does not come through', () => {
    expect(said(FILM, { elsewhere: [TARGET] }).filter(({ about: what }) => what === 'elsewhere')).toEqual([]);
    expect(about(said(FILM, { elsewhere: [BULLETIN] }), 'elsewhere')).toMatchObject({
      text: 'Does not come through on Members’ bulletin.',
      detail: 'Members’ bulletin lets no frames through. A linked poster stands in its place.',
    });
  });
});

describe('an unknown host', () => {
  it('can be linked, and the owner can decide', () => {
    expect(about(said('https://elsewhere.example/a'), 'trust')).toMatchObject({
      text: 'Can be linked, not framed.',
      isDue: true,
    });
  });

  it.each([
    ['entry', 'A film at Lanternreel, on the list of trusted hosts.'],
    ['decision', 'A film at Lanternreel, trusted by decision of the site owner.'],
    ['none', 'A film at Lanternreel, which nobody has decided on.'],
  ] as const)('by %s is said at the top', (trust, text) => {
    const { embed } = readOne(FILM);
    expect(sayWhatItIs(embed, entryById(embed.host, HOSTS), trust)).toBe(text);
  });
});

it('what has to be known of the code comes last', () => {
  const code =
    '<div class="corkline-board" data-board="reed-days"></div><script src="https://corkline.example/w.js"></script>';
  expect(said(code).at(-1)?.text).toContain('This was the script variant');
});
