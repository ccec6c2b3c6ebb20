import { describe, expect, it } from 'vitest';
import { chooseForm, type EmbedForm, formFault, sayFormFault } from './forms.ts';
import { readMarkup } from './markup.ts';
import type { Embed } from './model.ts';
import { HOSTS, readOne, TARGET } from './testing.ts';
import { grantsOf, heightAt, writeEmbed } from './write.ts';

const POSTER = { address: 'eel-pass.jpg', width: 1280, height: 720 };
const film = readOne('https://lanternreel.example/watch/eel-pass-71?start=42&cc=1').embed;
const known: Embed = { ...film, facts: { ...film.facts, title: 'How the eel pass works', seconds: 200 } };
const board = readOne('https://corkline.example/b/reed-days').embed;
const post = readOne('https://murmurline.example/m/first-boom').embed;
const unknown = readOne('https://elsewhere.example/a').embed;

const write = (form: EmbedForm, embed: Embed, target = TARGET) =>
  writeEmbed(form, { embed, target, hosts: HOSTS, poster: POSTER });
const choose = (
  embed: Embed,
  change: Partial<Parameters<typeof chooseForm>[0]> = {},
  wish: EmbedForm | null = null,
) => chooseForm({ embed, target: TARGET, hosts: HOSTS, framing: null, hasPoster: true, ...change }, wish);
const withRules = (change: Partial<typeof TARGET.embeds>) => ({
  target: { ...TARGET, embeds: { ...TARGET.embeds, ...change } },
});

describe('a frame', () => {
  it('is written with its title, size, least permissions and settings', () => {
    expect(write('frame', known)).toBe(
      '<iframe title="Film: How the eel pass works" src="https://lanternreel.example/play/eel-pass-71?start=42&amp;cc=1&amp;more=0&amp;chrome=less" width="720" height="405" style="display: block; aspect-ratio: 16 / 9; width: 100%; height: auto; border: 0" loading="lazy" allow="fullscreen" sandbox="allow-scripts allow-same-origin allow-presentation" referrerpolicy="strict-origin-when-cross-origin"></iframe>',
    );
  });

  it('keeps a height where it has no shape, and hears of it where its host tells', () => {
    expect(heightAt(board, 300)).toBe(520);
    expect(write('frame', board)).toContain(
      'height="520" style="display: block; width: 100%; height: 520px; border: 0"',
    );
    expect(write('frame', board)).toContain('data-height="corkline-height"');
  });

  it('never gets its scripts together with the origin of the page', () => {
    const target = { ...TARGET, siteAddress: 'https://lanternreel.example/about' };
    expect(grantsOf({ embed: film, target, hosts: HOSTS }).sandbox).toEqual([
      'allow-scripts',
      'allow-presentation',
    ]);
  });

  it('gets what somebody allowed, and to start by itself only when it is set to', () => {
    expect(
      grantsOf({ embed: { ...film, allowed: ['clipboard-write'] }, target: TARGET, hosts: HOSTS }).allow,
    ).toEqual(['clipboard-write', 'fullscreen']);
    const starting = { ...film, parameters: { ...film.parameters, autoplay: '1' } };
    expect(grantsOf({ embed: starting, target: TARGET, hosts: HOSTS }).allow).toEqual([
      'autoplay',
      'fullscreen',
    ]);
  });

  it('has a title even when nobody gave it one', () => {
    expect(write('frame', unknown)).toContain('title="Page from elsewhere.example"');
  });

  it('writes values rightly, whatever is in them', () => {
    const odd = { ...film, kept: { note: '"><script>x</script>&a=b' }, title: '"><script>x</script>' };
    const tags = [...readMarkup(write('frame', odd))].filter((piece) => piece.kind === 'start');
    expect(tags.map((tag) => tag.kind === 'start' && tag.name)).toEqual(['iframe']);
    expect(write('frame', odd)).toContain('note=%22%3E%3Cscript%3Ex%3C/script%3E%26a%3Db');
  });
});

describe('load on click', () => {
  it('is a link to its page, with the frame beside it in a template', () => {
    const html = write('click', known);
    expect(html).toContain(
      '<a href="https://lanternreel.example/watch/eel-pass-71"><img src="eel-pass.jpg" width="1280" height="720" alt=""',
    );
    expect(html).toContain(
      '<span>Watch “How the eel pass works” at Lanternreel, 3:20</span></a><template><iframe',
    );
    expect(html).toContain('autoplay=1');
    expect(html).toContain('allow="autoplay; fullscreen"');
  });
});

describe('a widget', () => {
  it('stands in a closed page of its own, whose policy names its host alone', () => {
    const html = write('widget', post);
    expect(html).toContain('sandbox="allow-scripts allow-popups"');
    expect(html).toContain('script-src https://murmurline.example;');
    expect(html).not.toContain('allow-same-origin');
  });
});

describe('the form', () => {
  it('is the fullest that the target lets through', () => {
    expect(choose(film)).toBe('click');
    expect(choose({ ...film, loadOnClick: false })).toBe('frame');
    expect(choose(film, withRules({ click: false }))).toBe('frame');
    expect(choose(film, withRules({ frames: false }))).toBe('poster');
    expect(choose(film, { ...withRules({ frames: false }), hasPoster: false })).toBe('link');
    expect(choose(film, withRules({ frameHosts: ['corkline.example'] }))).toBe('poster');
    expect(choose(post)).toBe('widget');
    expect(choose(post, withRules({ widgets: false }))).toBe('poster');
    expect(choose(unknown)).toBe('poster');
  });

  it('is no frame where the other site refuses, is gone or is private', () => {
    expect(choose(film, { framing: { kind: 'refused', by: 'X-Frame-Options', value: 'DENY' } })).toBe(
      'poster',
    );
    expect(choose(film, { framing: { kind: 'gone', status: 404 } })).toBe('poster');
    expect(choose(film, { framing: { kind: 'private', status: 403 } })).toBe('poster');
  });

  it('is the wished one where that is open', () => {
    expect(choose(film, {}, 'link')).toBe('link');
    expect(choose(film, {}, 'widget')).toBe('click');
  });

  it('that is not open says why', () => {
    const refused = { kind: 'refused', by: 'X-Frame-Options', value: 'DENY' } as const;
    const of = { embed: film, target: TARGET, hosts: HOSTS, framing: refused, hasPoster: false };
    const fault = formFault('frame', of);
    expect(fault?.code).toBe('refused');
    expect(fault && sayFormFault(fault)).toBe(
      'lanternreel.example forbids being framed by Reserve site (X-Frame-Options: DENY).',
    );
  });
});
