import { describe, expect, it } from 'vitest';
import { EMBED_FORMS } from '../embed/forms.ts';
import { EMBED_KINDS } from '../embed/host.ts';
import { HOSTS, readOne, TARGET } from '../embed/testing.ts';
import { writeEmbed } from '../embed/write.ts';
import { imageObjects } from '../formats/jsonld.ts';
import { writeCredits } from '../page/credits.ts';
import { examplePage, examplePiece, examplePlacement, PLAIN_RULES } from '../page/testing.ts';
import { writeDocument } from '../page/write.ts';
import { DE } from './de.ts';
import { EN } from './en.ts';
import { messagesFor } from './messages.ts';

const GERMAN = { ...PLAIN_RULES, language: 'de-AT' };
const PIECE = examplePiece({
  label: {
    title: 'Reiher',
    creator: 'Ines Okonjo',
    licence: 'cc-by-4.0',
    alt: { kind: 'text', text: 'Ein Reiher steht im Schilf.' },
    extendedDescription: 'Links steht er, rechts das Wasser.',
  },
});
const PAGE = {
  ...examplePage({
    type: 'placement',
    attrs: examplePlacement('column', {
      ratio: { across: 1, down: 1 },
      click: { kind: 'larger' },
    }),
  }),
  title: '',
};
const PIECES = new Map([[PIECE.id, PIECE]]);
const CONTEXT = { pieces: PIECES, addressOf: (cut: { fileName: string }) => cut.fileName };
const pageIn = (rules: typeof PLAIN_RULES) =>
  writeDocument(PAGE, { ...CONTEXT, rules, styleSheet: 'style.css' });

/** Words that a page would say in English if a message were forgotten. */
const ENGLISH =
  /\b(?:Photo|cropped|Opens larger|Description of|Untitled|Watch|Listen|at Lanternreel|from Lanternreel|Picture credits|No credit|Back to)\b/;

describe('what goes out beside what people wrote', () => {
  it('is in the language of the page', () => {
    const html = pageIn(GERMAN);
    expect(html).toContain('<html lang="de-AT">');
    expect(html).toContain('<title>Seite ohne Titel</title>');
    expect(html).toContain('alt="Ein Reiher steht im Schilf. Öffnet sich größer"');
    expect(html).toContain('<summary>Beschreibung: Reiher</summary>');
    expect(html).toMatch(
      /<span class="credit">Foto: Ines Okonjo, <a [^>]+>CC BY 4\.0<\/a>, beschnitten\.<\/span>/,
    );
    expect(html.replace(/<a [^>]+>/g, '')).not.toMatch(ENGLISH);
  });

  it('is English where a language has no words yet', () => {
    expect(pageIn({ ...PLAIN_RULES, language: 'fr' })).toContain('Photo: Ines Okonjo');
    expect(messagesFor('EN-gb')).toBe(EN);
    expect(messagesFor('')).toBe(EN);
    expect(messagesFor('de')).toBe(DE);
  });

  it('is so of the list of credits and of the data for machines', () => {
    const credits = writeCredits(PAGE, PIECES, GERMAN);
    expect(credits).toContain('<h1>Bildnachweise: Seite ohne Titel</h1>');
    expect(credits).toContain('<a href="index.html">Zurück zur Seite</a>');
    expect(writeCredits(examplePage(), PIECES, GERMAN)).toContain('ist kein Bildnachweis nötig');
    const [image] = imageObjects(PAGE, PIECES, GERMAN, { addressOf: (name) => name, fileOf: (name) => name })[
      '@graph'
    ];
    expect(image?.creditText).toBe('Foto: Ines Okonjo, CC BY 4.0, beschnitten.');
  });

  it.each(EMBED_FORMS)('is so of an embed as %s', (form) => {
    const { embed } = readOne('https://lanternreel.example/watch/eel-pass-71?start=42');
    const facts = { ...embed.facts, title: 'Die Aalleiter', seconds: 200 };
    for (const one of [embed, { ...embed, facts }, { ...embed, carrier: 'video' as const }]) {
      const html = writeEmbed(form, {
        embed: one,
        target: { ...TARGET, language: 'de' },
        hosts: HOSTS,
        poster: { address: 'a.jpg', width: 16, height: 9 },
      });
      expect(html.replace(/<(?:a|img|source) [^>]+>/g, '')).not.toMatch(ENGLISH);
      expect(html).toMatch(
        /Film „?Die Aalleiter“? bei Lanternreel ansehen|Film(?: von| bei|:) ?|Film bei Lanternreel/,
      );
    }
  });

  it.each(EMBED_KINDS)('says of a %s in both languages what it is, where, and what to do with it', (kind) => {
    for (const messages of [EN, DE]) {
      expect(messages.invitation(kind, 'Tides', 'Fathomchart')).toMatch(/[“„]Tides[”“].*Fathomchart/);
      expect(messages.invitation(kind, '', 'Fathomchart')).not.toMatch(/[“„”]/);
      expect(messages.embedOf(kind, 'Fathomchart')).toMatch(/^\p{Lu}.*Fathomchart$/u);
      expect(messages.linkedAt(kind, 'Fathomchart')).toContain('Fathomchart');
    }
  });

  it('puts changes in a row', () => {
    expect(EN.changed([])).toBe('');
    expect(EN.changed(['cropped', 'mirrored', 'toned'])).toBe('cropped, mirrored and toned');
    expect(DE.changed(['cropped', 'sharpened'])).toBe('beschnitten und geschärft');
  });
});
