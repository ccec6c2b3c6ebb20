import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import * as v from 'valibot';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { AssetListSchema, AssetSchema } from '#api/assets.ts';
import {
  EmbedPreviewSchema,
  FoundFilmsSchema,
  HostsSchema,
  type Look,
  LookSchema,
  ReadingSchema,
} from '#api/embeds.ts';
import { PageSchema } from '#api/pages.ts';
import { TargetSchema } from '#api/targets.ts';
import { madeUpHosts } from '#core/embed/made-up-hosts.ts';
import { readPasted } from '#core/embed/reading.ts';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { embedOf } from '#core/page/piece.ts';
import { perceptualHashes } from '../db/schema.ts';
import { writeBundle } from '../deliver/bundle.ts';
import { readPage } from '../pages/store.ts';
import { detailOf, startTestServer, type TestServer } from '../testing.ts';
import { readHosts } from './hosts.ts';
import { recheckEmbeds } from './recheck.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer('embeds', { outside: true });
  const entries = madeUpHosts((name) => server.at(name, '/'));
  await server.ask('/api/embeds/hosts', { as: 'sunniva', method: 'PUT', version: 0, body: { entries } });
});
afterAll(() => server.close());

/** What a stand-in answers, asked as the server asks. */
async function fetched(host: string, path: string): Promise<string> {
  const { bytes } = await server.context.outbound.read(server.at(host, path), {
    limits: { bytes: 1_000_000, millis: 5000 },
  });
  return bytes.toString();
}

const mood = (host: string, kind: string) => fetched(host, `/-/misbehave/${kind}`);

async function read(text: string, target = 'reserve') {
  const answer = await server.ask('/api/embeds/readings', { method: 'POST', body: { text, target } });
  expect(answer.status).toBe(200);
  return v.parse(ReadingSchema, answer.body);
}

async function readOne(text: string, target = 'reserve') {
  const { things, refusals } = await read(text, target);
  const [only] = things;
  if (!only) throw new Error(refusals.join(' '));
  return only;
}

async function lookAt(text: string): Promise<Look> {
  const [found] = readPasted(text, await readHosts(server.context)).embeds;
  const answer = await server.ask('/api/embeds/looks', { method: 'POST', body: { embed: found?.embed } });
  return v.parse(LookSchema, answer.body);
}

describe('a film by its address', () => {
  it('is asked for its title, maker, length, captions, visibility and poster', async () => {
    const look = await lookAt(server.at('lanternreel', '/watch/eel-pass-71?start=12'));
    expect(look.embed.facts).toEqual({
      title: 'How the eel pass works',
      author: 'Saltmere Marsh Reserve',
      thumbnail: server.at('lanternreel', '/posters/eel-pass-71.jpg'),
      seconds: 40,
      captions: ['en', 'cy'],
      visibility: 'public',
    });
    const poster = await fetch(look.poster ?? '');
    expect(poster.headers.get('content-type')).toBe('image/webp');
    expect(look.framing.map(({ framing }) => framing.kind)).toEqual(['may']);
  });

  it('comes as code that loads on a click, and as a link where no frames come through', async () => {
    const here = await readOne(server.at('lanternreel', '/watch/eel-pass-71'));
    expect(here).toMatchObject({ trust: 'entry', form: 'click' });
    expect(here.code).toContain('<iframe title="Film: How the eel pass works"');
    const { rules: before } = v.parse(TargetSchema, (await server.ask('/api/targets/reserve')).body);
    const bare = { ...before, embeds: { frames: false, frameHosts: [], click: false, widgets: false } };
    await server.ask('/api/targets/reserve', { as: 'sunniva', method: 'PUT', version: 1, body: bare });
    const there = await readOne(server.at('lanternreel', '/watch/eel-pass-71'));
    await server.ask('/api/targets/reserve', { as: 'sunniva', method: 'PUT', version: 2, body: before });
    expect(there.form).toBe('link');
    expect(there.code).not.toContain('iframe');
  });

  it.each([
    ['reed-cutting-3', 'by-link'],
    ['nest-camera-9', 'private'],
  ])('%s is said to be %s before it is placed', async (id, visibility) => {
    expect((await lookAt(server.at('lanternreel', `/watch/${id}`))).embed.facts.visibility).toBe(visibility);
  });

  it('that is private or gone comes as a link', async () => {
    expect((await readOne(server.at('lanternreel', '/watch/nest-camera-9'))).framing).toEqual({
      kind: 'private',
      status: 403,
    });
    const gone = await readOne(server.at('lanternreel', '/watch/nothing-1'));
    expect(gone).toMatchObject({ form: 'link', framing: { kind: 'gone', status: 404 } });
  });
});

describe('a site that misbehaves', () => {
  afterEach(async () => {
    await mood('lanternreel', 'well');
  });

  it.each([
    ['loop', 'without end'],
    ['cut', ''],
    ['broken', ''],
    ['wrong-type', ''],
    ['busy', ''],
  ])('that is %s leaves a link, and the rest stands', async (kind, sentence) => {
    await mood('lanternreel', kind);
    const thing = await readOne(server.at('lanternreel', '/watch/eel-pass-71'));
    expect(thing.embed.page).toBe(server.at('lanternreel', '/watch/eel-pass-71'));
    if (sentence) expect(thing.notes.join(' ')).toContain(sentence);
  });

  it('that begins to refuse being framed is found out', async () => {
    await mood('lanternreel', 'refuse-framing');
    const thing = await readOne(server.at('lanternreel', '/watch/eel-pass-71'));
    expect(thing).toMatchObject({
      form: 'link',
      framing: { kind: 'refused', by: 'X-Frame-Options', value: 'SAMEORIGIN' },
    });
  });

  it('that lies by oEmbed gets no code, no size and no program through', async () => {
    const answer = await fetched('lanternreel', '/oembed?format=json&url=lying/watch/eel-pass-71');
    const { things } = await read(answer);
    for (const { code } of things) expect(code).not.toMatch(/<script|onerror=|onload=|<iframe/);
  });
});

describe('searching a film host', () => {
  const search = (query: string) => server.ask(`/api/embeds/films?${query}`);

  it('finds films by words, without those that are not listed', async () => {
    const { films } = v.parse(FoundFilmsSchema, (await search('host=lanternreel&words=saltmere')).body);
    expect(films.map(({ title }) => title)).toEqual(['How the eel pass works', 'The first boom of the year']);
    expect(films[0]).toMatchObject({ seconds: 40, page: server.at('lanternreel', '/watch/eel-pass-71') });
  });

  it.each([
    ['host=fathomchart&words=tide', 404],
    ['host=nobody&words=tide', 404],
    ['host=lanternreel&words=', 422],
  ])('%s is refused', async (query, status) => {
    expect((await search(query)).status).toBe(status);
  });
});

describe('a chart', () => {
  it('that may not be framed says by which rule', async () => {
    const thing = await readOne(server.at('fathomchart', '/chart/sluice-live'));
    expect(thing.framing).toEqual({
      kind: 'refused',
      by: 'Content-Security-Policy',
      value: "frame-ancestors 'none'",
    });
    expect(thing.form).toBe('link');
  });

  it('comes from messy code, with what was left out', async () => {
    const code = `<iframe src="${server.at('fathomchart', '/frame/saltmere-bar')}?tools=1&sid=5a7f" width="640" height="480" allow="geolocation" onload="fathom()"></iframe>`;
    const { things, leftOut } = await read(code);
    expect(things[0]).toMatchObject({ form: 'frame', notGiven: ['geolocation'], tracking: ['sid'] });
    expect(leftOut.map(({ text }) => text)).toEqual(['sid=5a7f', 'geolocation', 'onload="fathom()"']);
  });
});

describe('an unknown host', () => {
  const page = () => server.at('anysite', '/');

  it('is linked, and framed once the site owner has decided so', async () => {
    expect(await readOne(page())).toMatchObject({ trust: 'none', form: 'link' });
    const wish = { scope: 'host', address: page(), reason: 'It is run by friends of the reserve.' };
    expect((await server.ask('/api/embeds/decisions', { method: 'POST', body: wish })).status).toBe(403);
    const decided = await server.ask('/api/embeds/decisions', { as: 'sunniva', method: 'POST', body: wish });
    expect(v.parse(HostsSchema, decided.body).decisions).toMatchObject(
      [{ scope: 'host', by: 'Sunniva', reason: wish.reason }].map(({ by: _by, ...rest }) => rest),
    );
    expect(await readOne(page())).toMatchObject({ trust: 'decision', form: 'frame' });
    const { value } = v.parse(HostsSchema, decided.body).decisions[0] ?? { value: '' };
    await server.ask('/api/embeds/decisions', {
      as: 'sunniva',
      method: 'DELETE',
      body: { scope: 'host', value },
    });
    expect((await readOne(page())).trust).toBe('none');
  });
});

describe('a frame that an unknown host offers by oEmbed', () => {
  it('is asked for in the place of its page, and is framed only by decision', async () => {
    const thing = await readOne(server.at('anysite', '/recording'));
    expect(thing.embed).toMatchObject({
      address: server.at('anysite', '/recording/player'),
      page: server.at('anysite', '/recording'),
      carrier: 'frame',
      shape: { kind: 'ratio', across: 4, down: 1 },
      facts: { title: 'Dawn in the reeds' },
    });
    expect(thing).toMatchObject({ form: 'link', framing: { kind: 'may', why: 'nothing-said' } });
    const wish = { scope: 'address', address: thing.embed.address, reason: 'It only plays a sound.' };
    await server.ask('/api/embeds/decisions', { as: 'sunniva', method: 'POST', body: wish });
    expect(await readOne(server.at('anysite', '/recording'))).toMatchObject({ form: 'frame' });
    expect(await readOne(server.at('anysite', '/page/plain'))).toMatchObject({ form: 'link' });
    await server.ask('/api/embeds/decisions', {
      as: 'sunniva',
      method: 'DELETE',
      body: { scope: 'address', value: wish.address },
    });
  });
});

describe('the hosts of the house', () => {
  it('are changed by the site owner on the version that stands, and the clash says both', async () => {
    const { version, entries } = await readHosts(server.context);
    const put = (as: 'mara' | 'sunniva', at: number, kept = entries) =>
      server.ask('/api/embeds/hosts', { as, method: 'PUT', version: at, body: { entries: kept } });
    expect((await put('mara', version)).status).toBe(403);
    const first = await put('sunniva', version);
    expect(first.status).toBe(200);
    // The very same once more, after a lost line, is answered the same.
    expect((await put('sunniva', version)).body).toEqual(first.body);
    const clash = await put('sunniva', version, entries.slice(1));
    expect(clash.status).toBe(412);
    expect(v.parse(v.looseObject({ current: HostsSchema }), clash.body).current.entries).toHaveLength(
      entries.length,
    );
  });

  it('that do not fit their schema are refused', async () => {
    const { version, entries } = await readHosts(server.context);
    const wrong = entries.map((entry) => ({ ...entry, sandbox: ['allow-top-navigation'] }));
    const answer = await server.ask('/api/embeds/hosts', {
      as: 'sunniva',
      method: 'PUT',
      version,
      body: { entries: wrong },
    });
    expect(answer.status).toBe(422);
    const twice = await server.ask('/api/embeds/hosts', {
      as: 'sunniva',
      method: 'PUT',
      version,
      body: { entries: [...entries, ...entries] },
    });
    expect(detailOf(twice)).toContain('Two hosts have the id');
  });
});

describe('a preview', () => {
  it('is the code as it goes out, under a policy that names its host alone', async () => {
    const { embed } = await readOne(server.at('fathomchart', '/chart/saltmere-bar'));
    const answer = await server.ask('/api/embeds/previews', {
      method: 'POST',
      body: { embed, target: 'reserve', form: 'frame' },
    });
    const { address } = v.parse(EmbedPreviewSchema, answer.body);
    const shown = await fetch(address);
    expect(shown.headers.get('content-security-policy')).toContain(
      `frame-src ${new URL(server.at('fathomchart', '/')).origin};`,
    );
    expect(await shown.text()).toContain('<iframe title="Map: Tides at Saltmere Bar"');
    expect((await fetch(address.replace('?s=', '?s=x'))).status).toBe(404);
  });

  it('of what is not trusted shows a poster or a link, whatever is wished for', async () => {
    const { embed } = await readOne(server.at('anysite', '/'));
    const answer = await server.ask('/api/embeds/previews', {
      method: 'POST',
      body: { embed, target: 'reserve', form: 'frame' },
    });
    const shown = await fetch(v.parse(EmbedPreviewSchema, answer.body).address);
    expect(await shown.text()).not.toContain('<iframe');
  });
});

it('a contributor reads no embeds, and more than a megabyte is refused with a reason', async () => {
  expect(
    (
      await server.ask('/api/embeds/readings', {
        as: 'joss',
        method: 'POST',
        body: { text: 'x', target: 'reserve' },
      })
    ).status,
  ).toBe(403);
  const large = await server.ask('/api/embeds/readings', {
    method: 'POST',
    body: { text: 'x'.repeat(1_000_001), target: 'reserve' },
  });
  expect(large.status).toBe(422);
  expect(detailOf(large)).toContain('1,000 kB');
});

describe('an embed on the shelf', () => {
  const keep = async (text: string) => {
    const { embed } = await readOne(text);
    const answer = await server.ask('/api/embeds', { method: 'POST', body: { embed, folder: 'films' } });
    return {
      status: answer.status,
      ...v.parse(v.looseObject({ asset: AssetSchema, isNew: v.boolean() }), answer.body),
    };
  };

  it('is a piece with a poster, a drafted label and a name, and is held once', async () => {
    const kept = await keep(server.at('lanternreel', '/watch/eel-pass-71'));
    expect(kept).toMatchObject({ status: 201, isNew: true });
    const { asset } = kept;
    expect(asset).toMatchObject({ stem: 'how-the-eel-pass-works', folder: 'films', format: 'jpeg' });
    expect(asset.label).toMatchObject({
      title: 'How the eel pass works',
      creator: 'Saltmere Marsh Reserve',
      source: 'Lanternreel',
      licence: 'unknown',
    });
    expect(embedOf(asset)?.framing).toEqual({ '': { kind: 'may', why: 'nothing-said' } });
    const again = await keep(server.at('lanternreel', '/v/eel-pass-71?start=9'));
    expect(again).toMatchObject({ status: 200, isNew: false });
    // Its poster shows what it leads to, and is no piece that could be taken for another.
    const look = await server.context.db
      .select()
      .from(perceptualHashes)
      .where(eq(perceptualHashes.assetId, asset.id));
    expect(look).toEqual([]);
    expect(again.asset.id).toBe(asset.id);
    const listed = await server.ask('/api/assets?kind=embed');
    expect(v.parse(AssetListSchema, listed.body).assets.map(({ id }) => id)).toEqual([asset.id]);
    expect(v.parse(AssetListSchema, (await server.ask('/api/assets?kind=photo')).body).assets).toEqual([]);
  });

  it('that names another host than its address does is refused', async () => {
    const { embed } = await readOne(server.at('anysite', '/'));
    const answer = await server.ask('/api/embeds', {
      method: 'POST',
      body: { embed: { ...embed, host: 'lanternreel' } },
    });
    expect(answer.status).toBe(422);
    expect(detailOf(answer)).toContain('another host');
  });

  it('that shows no picture of its own gets one drawn, and owes no licence for it', async () => {
    const { asset } = await keep(server.at('fathomchart', '/chart/saltmere-bar'));
    expect(asset).toMatchObject({ stem: 'tides-at-saltmere-bar', width: 1440, height: 1080 });
    expect(embedOf(asset)?.poster).toBe('drawn');
    expect(asset.label.licence).toBe('not-copied');
    const unknown = await server.ask('/api/assets?kind=embed&licence=unknown');
    expect(v.parse(AssetListSchema, unknown.body).assets.map(({ stem }) => stem)).toEqual([
      'how-the-eel-pass-works',
    ]);
    const change = (id: string, version: number, licence: string) =>
      server.ask(`/api/assets/${id}`, { method: 'PATCH', version, body: { label: { licence } } });
    expect((await change(asset.id, asset.version, 'cc-by-4.0')).status).toBe(200);
    expect((await change(asset.id, asset.version + 1, 'not-copied')).status).toBe(200);
    const film = (await keep(server.at('lanternreel', '/watch/eel-pass-71'))).asset;
    const refused = await change(film.id, film.version, 'not-copied');
    expect(refused.status).toBe(422);
    expect(detailOf(refused)).toContain('a copy goes out');
  });

  it('is changed on the version that stands, and never into another thing', async () => {
    const { asset } = await keep(server.at('lanternreel', '/watch/first-boom-12'));
    const change = (embed: object, version: number) =>
      server.ask(`/api/assets/${asset.id}`, { method: 'PATCH', version, body: { embed } });
    const embed = { ...embedOf(asset)?.embed, title: 'Film: the first boom' };
    expect((await change(embed, asset.version)).status).toBe(200);
    const clash = await change({ ...embed, title: 'Mine' }, asset.version);
    expect(clash.status).toBe(412);
    const other = await change(
      { ...embed, address: server.at('lanternreel', '/play/eel-pass-71') },
      asset.version + 1,
    );
    expect(other.status).toBe(422);
    expect(detailOf(other)).toContain('keeps what it embeds');
    expect((await change({ ...embed, address: 'javascript:alert(1)' }, asset.version + 1)).status).toBe(422);
  });

  it('goes out with its page as its target lets it, in a bundle with the script that loads it', async () => {
    const { asset } = await keep(server.at('lanternreel', '/watch/boardwalk-22'));
    const made = await server.ask('/api/pages', {
      method: 'POST',
      body: { title: 'The boardwalk', targetId: 'reserve', wants: [], due: null },
    });
    const { id } = v.parse(v.object({ id: v.string() }), made.body);
    const page = v.parse(PageSchema, (await server.ask(`/api/pages/${id}`)).body);
    const doc = {
      ...page.doc,
      blocks: [{ type: 'placement' as const, attrs: newPlacement('one', asset.id) }],
    };
    const saved = await server.ask(`/api/pages/${page.id}`, {
      method: 'PUT',
      version: page.version,
      body: { doc },
    });
    expect(saved.status).toBe(200);
    const folder = await mkdtemp(join(tmpdir(), 'placard-bundle-'));
    const files = await writeBundle(
      server.context,
      await readPage(server.context, page.id, 'house'),
      folder,
      async () => undefined,
    );
    expect(files).toContain('embeds.js');
    const html = await readFile(join(folder, 'index.html'), 'utf8');
    expect(html).toContain('<script src="embeds.js" async></script>');
    expect(html).toContain('<template><iframe title="Film: Along the new boardwalk"');
    expect(html).toMatch(/srcset="media\/along-the-new-boardwalk[^"]+\.avif/);
    await rm(folder, { recursive: true });
  });
});

describe('asking again', () => {
  const gone = async () => {
    const page = await server.ask('/api/assets?kind=embed&words=boom');
    const [asset] = v.parse(AssetListSchema, page.body).assets;
    return asset && embedOf(asset)?.framing[''];
  };
  const inDays = (days: number) => new Date(Date.now() + days * 24 * 60 * 60 * 1000);

  it('finds out after a day what is gone, and hears no answer as none', async () => {
    expect(await recheckEmbeds(server.context, new Date())).toBe(0);
    await mood('lanternreel', 'gone');
    expect(await recheckEmbeds(server.context, inDays(2))).toBeGreaterThan(0);
    expect(await gone()).toEqual({ kind: 'gone', status: 404 });
    await mood('lanternreel', 'broken');
    await recheckEmbeds(server.context, inDays(4));
    expect(await gone()).toEqual({ kind: 'gone', status: 404 });
    await mood('lanternreel', 'well');
    await recheckEmbeds(server.context, inDays(6));
    expect(await gone()).toEqual({ kind: 'may', why: 'nothing-said' });
  });
});
