import { desc, eq } from 'drizzle-orm';
import sharp from 'sharp';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Asset, AssetListSchema, AssetSchema } from '#api/assets.ts';
import type { LabelPatch } from '#core/rights/label.ts';
import { NO_TERMS } from '#core/rights/terms.ts';
import { activity, audit } from '../db/schema.ts';
import { arrivedOf, detailOf, startTestServer, type TestServer, type Who } from '../testing.ts';

let server: TestServer;
let heron: Asset;

const colours = ['#a11', '#1a1', '#11a', '#aa1', '#1aa', '#a1a'];

beforeAll(async () => {
  server = await startTestServer('shelf');
  const make = async (name: string, width: number, height: number, label: LabelPatch, folder = '') => {
    const bytes = await sharp({
      create: { width, height, channels: 3, background: colours.shift() ?? '#000' },
    })
      .jpeg()
      .toBuffer();
    const { asset } = arrivedOf(await server.handIn(bytes, name));
    return v.parse(AssetSchema, (await change(asset, { label, folder })).body);
  };
  heron = await make(
    'heron.jpg',
    1600,
    1000,
    {
      title: 'Grey heron at dawn',
      creator: 'Ines Okonjo',
      licence: 'cc-by-4.0',
      alt: { kind: 'text', text: 'A heron.' },
    },
    'birds/heron',
  );
  await make('bittern.jpg', 800, 1000, { title: 'Bittern', licence: 'cc-by-nc-4.0' }, 'birds/bittern');
  await make('boardwalk.jpg', 1200, 1200, { title: 'Boardwalk', licence: 'own' }, 'boardwalk');
  await make('dusk.jpg', 1000, 500, { title: 'Dusk', licence: 'comp' });
});
afterAll(() => server.close());

const change = (asset: Asset, body: unknown, as: Who = 'mara') =>
  server.ask(`/api/assets/${asset.id}`, { as, method: 'PATCH', body, version: asset.version });

async function ask(query: string): Promise<string[]> {
  const { assets } = v.parse(AssetListSchema, (await server.ask(`/api/assets?${query}`)).body);
  return assets.map((asset) => asset.stem).sort();
}

/** What each part of the sentence can say; the first of each says nothing. */
const PARTS: Readonly<Record<string, readonly string[]>> = {
  kind: ['any', 'photo', 'drawing', 'transparent', 'embed', 'animated'],
  folder: ['', 'birds', 'birds/heron', 'nowhere', '-'],
  licence: ['any', 'commercial', 'changeable', 'unknown', 'comp', 'cc-by-4.0'],
  words: ['', 'heron', 'at', 'he dawn', '%'],
  missing: ['nothing', 'alt', 'title', 'creator'],
  part: ['standing', 'pinned', 'folded', 'thrown-away'],
  shape: ['any', 'landscape', 'portrait', 'square'],
  leastWidth: ['1', '1100'],
  order: ['newest', 'oldest', 'name', 'widest'],
};

/** Every pair of things that two parts can say, and folder, words and part of the shelf each with each. */
function combinations(): readonly string[] {
  const names = Object.keys(PARTS);
  const of = (name: string) => PARTS[name] ?? [];
  const pairs = names.flatMap((one, at) =>
    names
      .slice(at + 1)
      .flatMap((other) => of(one).flatMap((a) => of(other).map((b) => ({ [one]: a, [other]: b })))),
  );
  const triples = of('folder').flatMap((folder) =>
    of('words').flatMap((words) => of('part').map((part) => ({ folder, words, part }))),
  );
  return [...new Set([...pairs, ...triples].map((said) => String(new URLSearchParams(said))))];
}

describe('every combination of the sentence', () => {
  it('is answered by what answers each of its parts, in pages and in number', async () => {
    const alone = new Map<string, readonly string[]>();
    for (const [name, values] of Object.entries(PARTS))
      for (const value of values)
        alone.set(`${name}=${value}`, await ask(String(new URLSearchParams({ [name]: value }))));
    const all = combinations();
    expect(all.length).toBeGreaterThan(600);
    for (const query of all) {
      const said = [...new URLSearchParams(query)];
      const part = said.find(([name]) => name === 'part')?.[1] ?? 'standing';
      const rest = said.filter(([name]) => name !== 'part');
      // What stands on the shelf is what is asked of, unless another part of it is.
      const expected = (alone.get(`part=${part}`) ?? []).filter((stem) =>
        rest.every(([name, value]) => part !== 'standing' || alone.get(`${name}=${value}`)?.includes(stem)),
      );
      const found = await ask(query);
      if (part === 'standing') expect([query, found]).toEqual([query, expected]);
      else expect(expected).toEqual(expect.arrayContaining(found));
      const counted = await server.ask(
        `/api/assets/count?${new URLSearchParams(said.filter(([name]) => name !== 'order'))}`,
      );
      expect([query, counted.body]).toEqual([query, expect.objectContaining({ found: found.length })]);
    }
  });
});

describe('the sentence', () => {
  it.each([
    ['', ['bittern', 'boardwalk', 'dusk', 'heron']],
    ['folder=birds', ['bittern', 'heron']],
    ['folder=birds/heron', ['heron']],
    ['folder=-', ['dusk']],
    ['licence=commercial', ['boardwalk', 'heron']],
    ['licence=changeable', ['bittern', 'boardwalk', 'heron']],
    ['licence=comp', ['dusk']],
    ['licence=cc-by-nc-4.0', ['bittern']],
    ['words=grey dawn', ['heron']],
    ['words=okon', ['heron']],
    ['words=GREY', ['heron']],
    ['words=herons', ['heron']],
    ['words=h%C3%A9ron', ['heron']],
    ['words=at', ['heron']],
    ['words=ron', []],
    ['words=heorn', ['heron']],
    ['words=grey heorn', ['heron']],
    ['words=heorn&leastWidth=9000', []],
    ['words=grey dawnlight', []],
    ['words=nothing', []],
    ['words=%25', ['bittern', 'boardwalk', 'dusk', 'heron']],
    ['missing=alt', ['bittern', 'boardwalk', 'dusk']],
    ['missing=creator', ['bittern', 'boardwalk', 'dusk']],
    ['shape=portrait', ['bittern']],
    ['shape=square', ['boardwalk']],
    ['leastWidth=1200', ['boardwalk', 'heron']],
    ['folder=birds&leastWidth=900&licence=commercial', ['heron']],
  ])('"%s" finds %j', async (query, stems) => {
    expect(await ask(query)).toEqual(stems);
  });

  it.each([
    ['newest', ''],
    ['oldest', ''],
    ['name', ''],
    ['widest', ''],
    ['newest', 'jpg'],
    ['widest', 'jpg'],
  ])('is paged by %s with the word "%s" without a piece lost or twice', async (order, words) => {
    const seen: string[] = [];
    let cursor = '';
    do {
      const answer = v.parse(
        AssetListSchema,
        (await server.ask(`/api/assets?order=${order}&words=${words}&limit=1&cursor=${cursor}`)).body,
      );
      seen.push(...answer.assets.map((asset) => asset.stem));
      cursor = answer.cursor ?? '';
    } while (cursor !== '');
    expect([...seen].sort()).toEqual(['bittern', 'boardwalk', 'dusk', 'heron']);
    if (order === 'widest') expect(seen).toEqual(['heron', 'boardwalk', 'dusk', 'bittern']);
  });

  it.each([
    ['', { found: 4, held: 4, readAs: null }],
    ['leastWidth=1200', { found: 2, held: 4, readAs: null }],
    ['words=nothing-of-this', { found: 0, held: 4, readAs: null }],
    ['words=heorn dawn', { found: 1, held: 4, readAs: 'heron dawn' }],
    ['part=thrown-away', { found: 0, held: 4, readAs: null }],
  ])('counts "%s" as %j', async (query, counted) => {
    expect((await server.ask(`/api/assets/count?${query}`)).body).toEqual(counted);
  });

  it.each(['order=loudest', 'leastWidth=wide', 'cursor=!!!', 'who=me'])('"%s" is refused', async (query) => {
    expect((await server.ask(`/api/assets?${query}`)).status).toBe(422);
  });
});

describe('changing a label', () => {
  it('is seen by the filter at once, counts up the version, and clears the draft', async () => {
    const answer = await change(heron, { label: { title: 'Heron at noon' } });
    heron = v.parse(AssetSchema, answer.body);
    expect(heron.label).toMatchObject({ title: 'Heron at noon', creator: 'Ines Okonjo' });
    expect(await ask('words=noon')).toEqual(['heron']);
  });

  it('on an old version answers what stands and writes nothing', async () => {
    const answer = await change(
      { ...heron, version: heron.version - 1 },
      { label: { title: 'Mine' } },
      'piet',
    );
    expect(answer.status).toBe(412);
    expect(v.parse(v.looseObject({ current: AssetSchema }), answer.body).current.label.title).toBe(
      'Heron at noon',
    );
  });

  it.each([
    [{ label: { licence: 'free' } }],
    [{ label: { sourceAddress: 'javascript:alert(1)' } }],
    [{ label: { dateCreated: 'yesterday' } }],
    [{ label: { owner: 'me' } }],
    [{ label: { title: 'x'.repeat(301) } }],
  ])('to %j is refused', async (body) => {
    expect((await change(heron, body)).status).toBe(422);
  });

  it('by a contributor is kept to their own pieces, and to what they may say', async () => {
    expect(detailOf(await change(heron, { label: { title: 'x' } }, 'joss'))).toContain('somebody else');
    const own = arrivedOf(
      await server.handIn(
        await sharp({ create: { width: 90, height: 60, channels: 3, background: '#f0f' } })
          .png()
          .toBuffer(),
        'reeds.png',
        'joss',
      ),
    ).asset;
    expect(detailOf(await change(own, { label: { licence: 'own' } }, 'joss'))).toContain(
      'Licences are said by',
    );
    expect((await change(own, { label: { title: 'Reeds' } }, 'joss')).status).toBe(200);
  });
});

describe('naming', () => {
  it('refuses a name that is taken and offers the next', async () => {
    const answer = await change(heron, { stem: 'bittern' });
    expect(answer.status).toBe(409);
    expect(detailOf(answer)).toContain('bittern-2 is free');
  });

  it('refuses a name that breaks the rule', async () => {
    expect(detailOf(await change(heron, { stem: 'My Heron' }))).toContain('small letters');
  });

  it('makes folders web-safe, with those above them', async () => {
    heron = v.parse(AssetSchema, (await change(heron, { folder: 'Birds/Grey Herons' })).body);
    expect(heron.folder).toBe('birds/grey-herons');
    const { body } = await server.ask('/api/folders');
    expect(body).toContainEqual({ path: 'birds/grey-herons', pieces: 1 });
    expect(body).toContainEqual({ path: 'birds', pieces: 2 });
  });
});

describe('changes of one piece at the same time', () => {
  const fresh = async (as: Who, name: string) => {
    const background = { r: Math.floor(Math.random() * 256), g: Math.floor(Math.random() * 256), b: 77 };
    const bytes = await sharp({ create: { width: 320, height: 200, channels: 3, background } })
      .jpeg({ quality: 40 + Math.floor(Math.random() * 50) })
      .toBuffer();
    return arrivedOf(await server.handIn(bytes, name, as)).asset;
  };

  it('fifty on one version are all answered: one is written, the others see it', async () => {
    const piece = await fresh('mara', 'fifty.jpg');
    const answers = await Promise.all(
      Array.from({ length: 50 }, (_, at) => change(piece, { label: { title: `Title ${at}` } })),
    );
    const count = (status: number) => answers.filter((answer) => answer.status === status).length;
    expect([count(200), count(412)]).toEqual([1, 49]);
  });

  it('sent again after a lost line is answered as the first time', async () => {
    const piece = await fresh('mara', 'again.jpg');
    const body = { label: { title: 'Said once' }, stem: 'said-once' };
    const first = v.parse(AssetSchema, (await change(piece, body)).body);
    const again = await change(piece, body);
    expect(again.status).toBe(200);
    expect(again.body).toMatchObject({ version: first.version, stem: 'said-once' });
    expect((await change(piece, body, 'piet')).status).toBe(412);
  });

  it('to one name are refused in a sentence, all but the first', async () => {
    const pieces = await Promise.all(Array.from({ length: 8 }, (_, at) => fresh('mara', `wish ${at}.jpg`)));
    const answers = await Promise.all(pieces.map((piece) => change(piece, { stem: 'one-name-for-all' })));
    expect(answers.filter(({ status }) => status === 200)).toHaveLength(1);
    for (const answer of answers.filter(({ status }) => status !== 200)) {
      expect(answer.status).toBe(409);
      expect(detailOf(answer)).toContain('Another piece is called one-name-for-all');
    }
  });
});

describe('rights', () => {
  const asJoss = (asset: Asset, body: unknown) => change(asset, body, 'joss');

  it('are not settled by who may not say them, by whatever way', async () => {
    const bytes = await sharp({ create: { width: 330, height: 200, channels: 3, background: '#3a5' } })
      .withXmp(
        '<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"><rdf:Description xmlns:xmpRights="http://ns.adobe.com/xap/1.0/rights/" xmpRights:WebStatement="https://creativecommons.org/licenses/by/4.0/"/></rdf:RDF></x:xmpmeta>',
      )
      .jpeg()
      .toBuffer();
    const { asset } = arrivedOf(await server.handIn(bytes, 'drafted.jpg', 'joss'));
    expect(asset.drafted).toContain('licence');
    for (const body of [
      { confirmed: ['licence'] },
      { confirmed: ['title', 'licence'] },
      { label: { licence: 'own' } },
      { label: { licence: asset.label.licence } },
      { label: { licensedTo: 'Joss Imrie' } },
      { label: { licenceAddress: 'https://creativecommons.org/licenses/by/3.0/de/' } },
      { label: { terms: { ...NO_TERMS, consent: 'given' } } },
    ]) {
      const answer = await asJoss(asset, body);
      expect([body, answer.status]).toEqual([body, 403]);
    }
    const [still] = v.parse(AssetListSchema, (await server.ask('/api/assets?words=drafted')).body).assets;
    expect(still?.drafted).toContain('licence');
    expect((await asJoss(asset, { label: { title: 'What it shows' } })).status).toBe(200);
    // Kept by who may, and a draft again when that is undone; not by who may not.
    const piece = async () => v.parse(AssetSchema, (await server.ask(`/api/assets/${asset.id}`)).body);
    expect((await change(await piece(), { confirmed: ['licence'] })).status).toBe(200);
    expect((await piece()).drafted).not.toContain('licence');
    expect((await asJoss(await piece(), { drafted: ['licence'] })).status).toBe(403);
    expect((await change(await piece(), { drafted: ['licence', 'no field'] })).status).toBe(200);
    expect((await piece()).drafted.filter((field) => field === 'licence' || field === 'no field')).toEqual([
      'licence',
    ]);
  });

  it('that a licence leaves open are decided by the rights keeper alone, under their own name and on this day', async () => {
    const piece = async () => v.parse(AssetSchema, (await server.ask(`/api/assets/${heron.id}`)).body);
    const decision = {
      about: 'changes',
      target: '',
      by: 'Somebody Else',
      on: '1999-01-01',
      why: 'She wrote that we may.',
      document: null,
    } as const;
    for (const who of ['mara', 'joss'] as const) {
      const answer = await change(await piece(), { label: { decisions: [decision] } }, who);
      expect([who, answer.status]).toEqual([who, 403]);
    }
    const made = await change(await piece(), { label: { decisions: [decision] } }, 'piet');
    const { label } = v.parse(AssetSchema, made.body);
    expect(label.decisions).toEqual([
      { ...decision, by: expect.stringMatching(/^piet/i), on: new Date().toISOString().slice(0, 10) },
    ]);
    // What stands is nobody's to take away but theirs, and stays under its name when something else is changed.
    expect((await change(await piece(), { label: { decisions: [] } }, 'mara')).status).toBe(403);
    expect((await change(await piece(), { label: { place: 'North reed' } }, 'mara')).status).toBe(200);
    expect((await piece()).label.decisions).toEqual(label.decisions);
    expect((await change(await piece(), { label: { decisions: [] } }, 'sunniva')).status).toBe(200);
    heron = await piece();
  });

  it('that are agreed for no day of the calendar, or end before they begin, are refused whole', async () => {
    for (const terms of [{ ends: '2026-02-30' }, { begins: '2026-12-14', ends: '2026-12-13' }]) {
      const answer = await change(heron, { label: { terms: { ...NO_TERMS, ...terms } } });
      expect([terms, answer.status]).toEqual([terms, 422]);
    }
  });

  it('that are said are written down with what they were before', async () => {
    await change(heron, { confirmed: ['licence'] });
    const row = v.parse(AssetSchema, (await server.ask(`/api/assets/${heron.id}`)).body);
    await change(row, { label: { licence: 'own' } });
    const [entry] = await server.context.db
      .select()
      .from(audit)
      .where(eq(audit.what, 'rights'))
      .orderBy(desc(audit.id))
      .limit(1);
    expect(entry?.subject).toContain('heron');
    expect(entry?.detail).toMatch(/before it CC BY 4\.0/);
    const [step] = await server.context.db
      .select()
      .from(activity)
      .where(eq(activity.subjectId, heron.id))
      .orderBy(desc(activity.id))
      .limit(1);
    expect(step?.before).toHaveProperty('drafted');
    heron = v.parse(AssetSchema, (await server.ask(`/api/assets/${heron.id}`)).body);
    await change(heron, { label: { licence: 'cc-by-4.0' } });
  });
});
