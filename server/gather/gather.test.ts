import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import { count } from 'drizzle-orm';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  AddressReadingSchema,
  AlbumSchema,
  CloserLookSchema,
  type Gathering,
  GatheringSchema,
  ProvenanceSchema,
  type SealedPicture,
  SourceAnswerSchema,
} from '#api/gather.ts';
import { PageSchema } from '#api/pages.ts';
import { firstSaid, readLicence } from '#core/gather/reading.ts';
import { assets } from '../db/schema.ts';
import { workOne } from '../jobs/worker.ts';
import { detailOf, startTestServer, type TestServer, type Who } from '../testing.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer('gather', { outside: true });
});
afterAll(() => server.close());

async function search(source: string, query = ''): Promise<v.InferOutput<typeof SourceAnswerSchema>> {
  const answer = await server.ask(`/api/sources/${source}/pictures?${query}`);
  return v.parse(SourceAnswerSchema, answer.body);
}

const read = async (address: string) => server.ask('/api/readings', { method: 'POST', body: { address } });

async function readPictures(address: string): Promise<readonly SealedPicture[]> {
  return v.parse(AddressReadingSchema, (await read(address)).body).pictures;
}

interface Wished {
  readonly pageId?: string;
  readonly wantId?: string;
  readonly licence?: string;
}

/** Orders, works the job, and answers what became of it. */
async function take(pictures: readonly SealedPicture[], wished: Wished = {}): Promise<Gathering> {
  const ordered = await server.ask('/api/gatherings', {
    method: 'POST',
    body: {
      seals: pictures.map(({ seal }) => seal),
      pageId: wished.pageId ?? null,
      wantId: wished.wantId ?? null,
      folder: 'gathered',
      licence: wished.licence ?? null,
    },
  });
  if (ordered.status !== 202) throw new Error(JSON.stringify(ordered.body));
  const { jobId } = v.parse(GatheringSchema, ordered.body);
  while (await workOne(server.context));
  return v.parse(GatheringSchema, (await server.ask(`/api/gatherings/${jobId}`)).body);
}

async function beginPage(title: string): Promise<string> {
  const want = { id: 'want-1', purpose: 'Lead', shape: 'landscape', leastWidth: 400, filledBy: null };
  const made = await server.ask('/api/pages', {
    method: 'POST',
    body: { title, targetId: 'reserve', wants: [want], due: null },
  });
  return v.parse(v.object({ id: v.string() }), made.body).id;
}

const pageOf = async (id: string) => v.parse(PageSchema, (await server.ask(`/api/pages/${id}`)).body);

async function held(): Promise<number> {
  const [row] = await server.context.db.select({ n: count() }).from(assets);
  return row?.n ?? 0;
}

describe('an open collection', () => {
  it('answers words, page by page, with what it says of each picture', async () => {
    const first = await search('commonfield', 'words=boardwalk');
    expect(first.count).toBeGreaterThan(6);
    const planks = first.pictures.find(({ key }) => key === 'cf-101');
    expect(planks).toMatchObject({ source: 'commonfield', fileName: 'cf-101.jpg' });
    expect(planks?.statements).toContainEqual({ by: 'collection', about: 'maker', value: 'T. Veraldi' });
    const all = await search('commonfield');
    expect(all.cursor).toBe('2');
    const next = await search('commonfield', 'cursor=2');
    expect(next.pictures.map(({ key }) => key)).not.toContain(all.pictures[0]?.key);
  });

  it('goes onto the tray and into the want, with its label drafted and its origin kept', async () => {
    const pageId = await beginPage('Gathered');
    const { pictures } = await search('commonfield', 'words=planks');
    const { takings, state } = await take(pictures, { pageId, wantId: 'want-1' });
    expect(state).toBe('done');
    expect(takings).toMatchObject([{ state: 'in', isNew: true }]);
    const page = await pageOf(pageId);
    const assetId = takings[0]?.asset?.id ?? '';
    expect(page.doc.tray).toEqual([assetId]);
    expect(page.doc.wants[0]?.filledBy).toBe(assetId);
    const [piece] = page.pieces;
    expect(piece?.label).toMatchObject({
      title: 'Planks at last light, Orrin flats',
      creator: 'T. Veraldi',
      licence: 'cc-by-sa-4.0',
      source: 'Commonfield',
      dateCreated: '2025-01-03',
    });
    expect(piece?.stem).toBe('planks-at-last-light-orrin-flats');
    expect(piece?.folder).toBe('gathered');
    const [origin] = v.parse(
      v.array(ProvenanceSchema),
      (await server.ask(`/api/assets/${assetId}/provenance`)).body,
    );
    expect(origin).toMatchObject({ way: 'source', sourceName: 'Commonfield', by: 'mara' });
    expect(origin?.address).toContain('/files/cf-101.jpg');
    expect(origin?.said).toContainEqual(
      expect.objectContaining({ about: 'licence', value: 'https://creativecommons.org/licenses/by-sa/4.0/' }),
    );
  });

  it('is not fetched again when it is held already, and says so', async () => {
    const { pictures } = await search('commonfield', 'words=planks');
    expect(pictures[0]?.heldAs?.name).toBe('planks-at-last-light-orrin-flats.jpg');
    const before = await held();
    const { takings } = await take(pictures);
    expect(takings[0]).toMatchObject({ state: 'in', isNew: false });
    expect(takings[0]?.sentence).toContain('was not fetched again');
    expect(await held()).toBe(before);
  });

  it('leaves a licence that is not clear to a person, whose decision is kept', async () => {
    const { pictures } = await search('commonfield', 'words=frost channel');
    expect(readLicence(pictures[0]?.statements ?? []).kind).toBe('unclear');
    const guessed = await take(pictures);
    expect(guessed.takings[0]?.asset?.label.licence).toBe('unknown');
    const rail = await search('commonfield', 'words=rail');
    const decided = await take(rail.pictures, { licence: 'cc-by-nc-4.0' });
    expect(decided.takings[0]?.asset?.label.licence).toBe('cc-by-nc-4.0');
    expect(decided.takings[0]?.asset?.drafted).not.toContain('licence');
  });

  it('is looked at closer: its own page says something else, and the shelf holds its like', async () => {
    const [rail] = (await search('commonfield', 'words=rail')).pictures;
    const answer = await server.ask('/api/closer-looks', { method: 'POST', body: { seal: rail?.seal } });
    const look = v.parse(CloserLookSchema, answer.body);
    const both = [...(rail?.statements ?? []), ...look.pageSays];
    expect(readLicence(both).kind).toBe('contradicting');
    expect(look.alike.map(({ asset }) => asset.label.title)).toContain('Boardwalk rail, evening');
  });
});

describe('an agency', () => {
  it('hands out comps with their ID and terms; they are marked as such', async () => {
    const { pictures } = await search('brackwater', 'words=walkway');
    const { takings } = await take(pictures);
    const asset = takings[0]?.asset;
    expect(asset?.label).toMatchObject({
      licence: 'comp',
      creator: 'R. Achterberg',
      source: 'Brackwater Pictures',
      sourceId: '88-4412',
    });
    expect(asset?.conditions).toContainEqual({ code: 'watermarked' });
    const [origin] = v.parse(
      v.array(ProvenanceSchema),
      (await server.ask(`/api/assets/${asset?.id}/provenance`)).body,
    );
    expect(origin?.said).toEqual(
      expect.arrayContaining([
        { by: 'agency', about: 'price', value: '48.00 EUR' },
        { by: 'agency', about: 'terms', value: 'two years, one site' },
      ]),
    );
  });
});

describe('an archive without an interface', () => {
  it('is read page by page, with its rights statements', async () => {
    const { pictures } = await search('wayside', 'words=boardwalk');
    const plate = pictures.find(({ key }) => key === 'plates/131');
    expect(readLicence(plate?.statements ?? [])).toMatchObject({
      kind: 'clear',
      licence: 'no-known-copyright',
    });
    expect(plate?.address).toContain('/scans/131.jpg');
  });

  it('contradicts itself on one plate, which is said', async () => {
    const { pictures } = await search('wayside', 'words=winter');
    expect(readLicence(pictures[0]?.statements ?? []).kind).toBe('contradicting');
  });
});

describe('a drive', () => {
  it('lists albums with what is fresh, and does not fetch unchanged files again', async () => {
    const albums = async () =>
      v.parse(v.array(AlbumSchema), (await server.ask('/api/sources/loftdrive/albums')).body);
    expect((await albums())[1]).toMatchObject({ name: 'Boardwalk works', files: 3, fresh: 3 });
    const files = v.parse(
      SourceAnswerSchema,
      (await server.ask('/api/sources/loftdrive/albums/boardwalk-works')).body,
    ).pictures;
    const first = await take(files);
    expect(first.takings.map(({ state }) => state)).toEqual(['in', 'in', 'in']);
    expect((await albums())[1]?.fresh).toBe(0);
    const before = await held();
    const again = await take(files);
    expect(again.takings.every(({ sentence }) => sentence.includes('was not fetched again'))).toBe(true);
    expect(await held()).toBe(before);
  });
});

describe('any address', () => {
  it('of a picture is a picture, whatever type it is served as', async () => {
    for (const path of ['/picture/plain.jpg', '/moved/plain.jpg', '/modest/plain']) {
      const reading = v.parse(AddressReadingSchema, (await read(server.at('anysite', path))).body);
      expect(reading).toMatchObject({ kind: 'picture', pictures: [{ width: 1600, height: 1000 }] });
    }
  });

  it('of a page shows the pictures on it, largest first, with what the page says', async () => {
    const [plain, small, ...rest] = await readPictures(server.at('anysite', '/page/article'));
    expect(plain).toMatchObject({ width: 1600, height: 1000 });
    expect(small).toMatchObject({ width: 240 });
    expect(rest).toEqual([]);
    const said = plain?.statements ?? [];
    expect(readLicence(said)).toMatchObject({ kind: 'clear', licence: 'cc-by-4.0' });
    expect(said).toEqual(
      expect.arrayContaining([
        { by: 'json-ld', about: 'maker', value: 'Osric Penhale' },
        { by: 'json-ld', about: 'notice', value: '© Osric Penhale' },
        { by: 'open-graph', about: 'title', value: 'A day on the flats' },
        expect.objectContaining({ by: 'caption', about: 'caption' }),
      ]),
    );
    const { takings } = await take(plain ? [plain] : []);
    expect(takings[0]?.asset?.label).toMatchObject({ creator: 'Osric Penhale', licence: 'cc-by-4.0' });
  });

  it('of a page named like a picture is read as the page it is', async () => {
    const reading = v.parse(
      AddressReadingSchema,
      (await read(server.at('anysite', '/lying/plain.jpg'))).body,
    );
    expect(reading).toMatchObject({ kind: 'page', pictures: [] });
  });

  it('of a guarded picture is taken by way of its page', async () => {
    const direct = await read(server.at('anysite', '/guarded/plain.jpg'));
    expect(direct.status).toBe(502);
    expect(detailOf(direct)).toContain('Give the address of the page that shows it');
    const onPage = await readPictures(server.at('anysite', '/page/guarded'));
    const { takings } = await take(onPage);
    expect(takings[0]?.state).toBe('in');
  });

  it('says where licences contradict, and survives data that cannot be read', async () => {
    const [twice] = await readPictures(server.at('anysite', '/page/contradicting'));
    expect(readLicence(twice?.statements ?? []).kind).toBe('contradicting');
    const [odd] = await readPictures(server.at('anysite', '/page/malformed'));
    expect(odd?.statements).toContainEqual(
      expect.objectContaining({ by: 'caption', value: 'It still has a caption.' }),
    );
  });

  it('of a page with 2,000 pictures shows the largest and says how many are left out', async () => {
    const reading = v.parse(AddressReadingSchema, (await read(server.at('anysite', '/page/many'))).body);
    expect(reading.pictures.length).toBe(200);
    expect(reading.leftOut).toBe(1800);
  });

  it.each([
    ['javascript:alert(1)', 422, 'Only addresses that begin with'],
    ['nonsense', 422, 'That is not a web address'],
    ['http://169.254.169.254/', 422, 'not a public place'],
    ['http://mara:x@example.org/', 422, 'name or password'],
  ])('%s is refused in a sentence', async (address, status, words) => {
    const before = await held();
    const answer = await read(address);
    expect(answer.status).toBe(status);
    expect(detailOf(answer)).toContain(words);
    expect(await held()).toBe(before);
  });

  it.each([
    ['/bomb', 'larger than what is taken'],
    ['/page/plain?misbehave=gone', 'nothing at this address'],
    ['/page/plain?misbehave=busy', 'left alone for a while'],
    ['/page/plain?misbehave=loop', 'without end'],
    ['/to-private', 'not a public place'],
  ])('%s is said in a sentence, and nothing is stored', async (path, words) => {
    const before = await held();
    const answer = await read(server.at('anysite', path));
    expect(answer.status).toBeGreaterThanOrEqual(400);
    expect(detailOf(answer)).toContain(words);
    expect(await held()).toBe(before);
  });
});

describe('a page whose pictures come late', () => {
  it('gives each once, with its words, and no furniture; what is written into it is a file like any other', async () => {
    const pictures = await readPictures(server.at('anysite', '/page/late'));
    const told = pictures.map(({ address, width, height, statements }) => [
      address.replace(/^https?:.*\/picture\//, '').replace(/^in-page:.*/, 'in the page'),
      `${width} x ${height}`,
      firstSaid(statements, 'alt'),
      firstSaid(statements, 'caption'),
    ]);
    expect(told).toEqual([
      ['enlarged.jpg', '1800 x 1200', 'The way out', ''],
      ['plain.jpg', '1600 x 1000', 'The flats at low water', 'The flats at low water, April.'],
      ['compressed.jpg', '1400 x 900', 'The same at noon', 'The same at noon, April.'],
      // What its link opens is a page under a picture’s name.
      ['bordered.jpg', '1200 x 800', 'A card of before', ''],
      ['in the page', '120 x 80', 'A sketch of the pool', ''],
    ]);
    const { takings } = await take(pictures);
    expect(takings.map(({ state }) => state)).toEqual(['in', 'in', 'in', 'in', 'in']);
    const [sketch] = takings.slice(-1);
    expect(sketch?.asset?.label).toMatchObject({
      alt: { kind: 'text', text: 'A sketch of the pool' },
      licence: 'unknown',
      sourceAddress: server.at('anysite', '/page/late'),
    });
    const looked = await fetch(pictures.at(-1)?.look ?? '');
    expect([looked.status, looked.headers.get('content-type')]).toEqual([200, 'image/webp']);
  });

  it('that were written into it are kept for a day only, and asked for again after that', async () => {
    const pictures = await readPictures(server.at('anysite', '/page/late'));
    await rm(join(server.context.config.dataFolder, 'previews'), { recursive: true });
    const { takings } = await take(pictures.slice(-1));
    expect(takings.map(({ state, sentence }) => [state, sentence])).toEqual([
      ['refused', expect.stringContaining('Read the page again')],
    ]);
  });
});

describe('on arrival', () => {
  it.each([
    ['bordered', 'border'],
    ['enlarged', 'enlarged-before'],
    ['compressed', 'compressed'],
  ])('a %s picture is seen to be so', async (name, code) => {
    const { takings } = await take(await readPictures(server.at('anysite', `/picture/${name}.jpg`)));
    expect(takings[0]?.asset?.conditions.map((condition) => condition.code)).toContain(code);
  });

  it('a border is left out as a step of the recipe, and shown again', async () => {
    const { takings } = await take(await readPictures(server.at('anysite', '/picture/bordered.jpg')));
    const asset = takings[0]?.asset;
    const border = asset?.conditions.find((condition) => condition.code === 'border');
    if (!asset || border?.code !== 'border') throw new Error('no border was seen');
    const trimmed = await server.ask(`/api/assets/${asset.id}`, {
      method: 'PATCH',
      version: asset.version,
      body: { trim: border.inside },
    });
    expect(trimmed.body).toMatchObject({ original: { width: 1200, height: 800 } });
    const { width } = v.parse(v.looseObject({ width: v.number() }), trimmed.body);
    expect(Math.abs(width - 1120)).toBeLessThan(12);
  });
});

describe('results', () => {
  it('are taken only as they were found', async () => {
    const [found] = (await search('commonfield', 'words=heron')).pictures;
    const [text = '', mark = ''] = (found?.seal ?? '').split('.');
    const changed = Buffer.from(text, 'base64url')
      .toString()
      .replace('CC', 'XX')
      .replace('by/4.0', 'zero/1.0');
    const forged = `${Buffer.from(changed).toString('base64url')}.${mark}`;
    const answer = await server.ask('/api/gatherings', {
      method: 'POST',
      body: { seals: [forged], pageId: null, wantId: null, folder: '', licence: null },
    });
    expect(answer.status).toBe(422);
  });

  it('can be looked at on the media origin, by signed addresses alone', async () => {
    const [found] = (await search('commonfield', 'words=heron')).pictures;
    const look = await fetch(found?.look ?? '');
    expect(look.headers.get('content-type')).toBe('image/webp');
    expect((await fetch((found?.look ?? '').replace(/s=..../, 's=AAAA'))).status).toBe(404);
  });

  it('a dead source says so, and the others answer', async () => {
    await fetch(server.at('wayside', '/-/misbehave/broken').replace('wayside.localhost', '127.0.0.1'), {
      headers: { host: 'wayside.localhost' },
    }).catch(() => undefined);
    await server.context.outbound
      .read(server.at('wayside', '/-/misbehave/broken'), { limits: { bytes: 1000, millis: 1000 } })
      .catch(() => undefined);
    const silent = await server.ask('/api/sources/wayside/pictures?words=boardwalk');
    expect(silent.status).toBe(502);
    expect(detailOf(silent)).toContain('fault of its own');
    expect((await search('commonfield', 'words=boardwalk')).count).toBeGreaterThan(0);
    await server.context.outbound.read(server.at('wayside', '/-/misbehave/well'), {
      limits: { bytes: 1000, millis: 1000 },
    });
  });

  it('a batch goes on where it stopped when its worker died, and nothing comes twice', async () => {
    const { pictures } = await search('commonfield', 'words=heron');
    const ordered = await server.ask('/api/gatherings', {
      method: 'POST',
      body: {
        seals: pictures.map(({ seal }) => seal),
        pageId: null,
        wantId: null,
        folder: '',
        licence: null,
      },
    });
    const { jobId } = v.parse(GatheringSchema, ordered.body);
    // As a worker leaves it that dies after its first picture: running, with a lease that is over.
    await server.context.connection.pool.query(
      "UPDATE jobs SET state = 'running', lease_until = '2020-01-01' WHERE id = ?",
      [jobId],
    );
    await server.context.connection.pool.query(
      "UPDATE import_items SET state = 'in', sentence = 'before' WHERE job_id = ? AND ordinal = 0",
      [jobId],
    );
    const before = await held();
    while (await workOne(server.context));
    const { takings, state } = v.parse(GatheringSchema, (await server.ask(`/api/gatherings/${jobId}`)).body);
    expect(state).toBe('done');
    expect(takings[0]?.sentence).toBe('before');
    expect(takings.slice(1).every((taking) => taking.state === 'in')).toBe(true);
    expect(await held()).toBe(before + pictures.length - 1);
  });

  it('one that fails says why, and the others of the batch go on', async () => {
    const good = (await search('commonfield', 'words=geese')).pictures;
    const bad = await readPictures(server.at('anysite', '/page/many'));
    const [lost] = bad;
    await server.context.outbound.read(server.at('anysite', '/-/misbehave/gone'), {
      limits: { bytes: 1000, millis: 1000 },
    });
    const { takings, state, words } = await take([...(lost ? [lost] : []), ...good]);
    await server.context.outbound
      .read(server.at('anysite', '/-/misbehave/well'), { limits: { bytes: 1000, millis: 1000 } })
      .catch(() => undefined);
    expect(state).toBe('done');
    expect(takings.map((taking) => taking.state)).toEqual(['refused', 'in']);
    expect(takings[0]?.sentence).toContain('nothing at this address');
    expect(words).toBe('1 in, 1 could not be taken');
  });
});

describe('who may gather', () => {
  it.each(['/api/sources', '/api/sources/commonfield/pictures', '/api/clippers'])(
    'a contributor may not ask %s',
    async (path) => {
      expect((await server.ask(path, { as: 'joss' as Who })).status).toBe(403);
    },
  );

  it('a contributor cannot take what was found', async () => {
    const [found] = (await search('commonfield', 'words=heron')).pictures;
    const answer = await server.ask('/api/gatherings', {
      as: 'joss',
      method: 'POST',
      body: { seals: [found?.seal], pageId: null, wantId: null, folder: '', licence: null },
    });
    expect(answer.status).toBe(403);
  });
});

describe('a clipper', () => {
  const tokenIn = (code: string) => /t:"([^"]+)"/.exec(decodeURI(code))?.[1] ?? '';
  const handIn = (token: string, address = 'https://example.org/page') =>
    fetch(`${server.origin}/api/clips`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ token, address, selection: 'Planks in frost' }),
    });
  const make = async () => {
    const answer = await server.ask('/api/clippers', { method: 'POST', body: {} });
    return v.parse(v.object({ id: v.string(), code: v.string() }), answer.body);
  };

  it('hands an address and words in without a session, and can do nothing else', async () => {
    const { code } = await make();
    expect(code).toMatch(/^javascript:/);
    const token = tokenIn(code);
    const handed = await handIn(token);
    expect(handed.status).toBe(201);
    const clips = await server.ask('/api/clips');
    expect(clips.body).toMatchObject([{ address: 'https://example.org/page', selection: 'Planks in frost' }]);
    for (const path of ['/api/assets', '/api/clips', '/api/me']) {
      const answer = await fetch(`${server.origin}${path}`, {
        headers: { authorization: `Bearer ${token}` },
      });
      expect(answer.status).toBe(401);
    }
    // Another person neither sees nor opens it.
    expect((await server.ask('/api/clips', { as: 'piet' })).body).toEqual([]);
  });

  it('is called back, and is over after its time', async () => {
    const { id, code } = await make();
    expect((await server.ask(`/api/clippers/${id}`, { method: 'DELETE' })).status).toBe(204);
    const late = await handIn(tokenIn(code));
    expect(late.status).toBe(403);
    const { code: other } = await make();
    await server.context.connection.pool.query("UPDATE clippers SET expires_at = '2020-01-01'");
    expect((await handIn(tokenIn(other))).status).toBe(403);
  });

  it('takes only web addresses', async () => {
    const { code } = await make();
    expect((await handIn(tokenIn(code), 'javascript:alert(1)')).status).toBe(422);
    expect((await handIn('made up')).status).toBe(403);
  });
});
