import { zipSync } from 'fflate';
import sharp from 'sharp';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { BegunSchema, InheritedListSchema, InheritedPageSchema, type NewInherited } from '#api/inherited.ts';
import { JobSchema } from '#api/jobs.ts';
import { PageSchema } from '#api/pages.ts';
import { madeUpHosts } from '#core/embed/made-up-hosts.ts';
import { inheritedPages, jobs } from '../db/schema.ts';
import { pageText } from '../gather/page-text.ts';
import { workOne } from '../jobs/worker.ts';
import { arrivedOf, detailOf, startTestServer, type TestServer, type Who } from '../testing.ts';
import { BRING_IN } from './bring-in.ts';
import { READ_INHERITED } from './look.ts';

let server: TestServer;

beforeAll(async () => {
  server = await startTestServer('inherited', { outside: true });
  const entries = madeUpHosts((host) => server.at(host, ''));
  await server.ask('/api/embeds/hosts', { as: 'sunniva', method: 'PUT', version: 0, body: { entries } });
});
afterAll(() => server.close());

const readAll = async () => {
  while (await workOne(server.context, [READ_INHERITED]));
};
const bringAll = async () => {
  while (await workOne(server.context, [BRING_IN]));
};

const order = (from: NewInherited['from'], as: Who = 'mara') =>
  server.ask('/api/inherited', { as, method: 'POST', body: { targetId: 'reserve', from } });

async function readOne(from: NewInherited['from']): Promise<string> {
  const { body } = await order(from);
  await readAll();
  const { ids } = v.parse(BegunSchema, body);
  return ids[0] ?? '';
}

const atAddress = (path: string) =>
  readOne({ kind: 'addresses', addresses: [server.at('reserve', `/old/${path}`)] });

const asPasted = (html: string) => readOne({ kind: 'html', html, name: 'pasted', address: '' });

const page = async (id: string) =>
  v.parse(InheritedPageSchema, (await server.ask(`/api/inherited/${id}`)).body);

const WISH = { mends: true, isOurs: false, unlinksDead: true };

async function broughtIn(id: string, wish: Partial<typeof WISH> & { alts?: object } = {}) {
  const body = { ...WISH, ...wish };
  const answer = await server.ask(`/api/inherited/${id}/bring-in`, { method: 'POST', body });
  expect(answer.status).toBe(202);
  await bringAll();
  const { pageId, state, words } = await page(id);
  expect([state, words]).toEqual(['in', '']);
  return v.parse(PageSchema, (await server.ask(`/api/pages/${pageId}`)).body);
}

describe('a page at an address', () => {
  it('is read with all its faults, and nothing is taken in by that', async () => {
    const id = await atAddress('eels.htm');
    const found = await page(id);
    expect(found).toMatchObject({ state: 'read', title: 'The Eel Pass!!', pictures: 3, pageId: null });
    const codes = found.list.map(({ code, outcome }) => `${code} ${outcome}`);
    expect(codes).toEqual([
      'dead-player mended',
      'licence-unknown asks',
      'alt-missing asks',
      'alt-file-name asks',
      'link-dead asks',
      'link-moved mended',
      'link-vague mended',
      'stretched mended',
      'oversized mended',
      'letter-heading mended',
      'layout-table mended',
      'spacing mended',
      'obsolete mended',
      'file-name mended',
      'language-missing mended',
    ]);
    expect(found.deadLinks).toBe(2);
    expect(found.left.map(({ kind }) => kind)).toEqual(['furniture', 'decoration']);
    const shelf = await server.ask('/api/assets');
    expect(JSON.stringify(shelf.body)).not.toContain('sluice');
  });

  it('asks for the words of its pictures before they come in, and says them of the pieces', async () => {
    const id = await atAddress('eels.htm');
    const { unworded } = await page(id);
    expect(unworded.map(({ name }) => name).sort()).toEqual(['DSC00471 (1).JPG', 'chart.gif', 'sluice.jpg']);
    const [first] = unworded;
    const look = await fetch(first?.look ?? '');
    expect(look.headers.get('content-type')).toBe('image/webp');
  });

  it('says the words that were given of the pieces, or of the page where they are held already', async () => {
    const picture = server.at('anysite', '/picture/plain.jpg');
    const html = `<title>Plain</title><p>Words.</p><p><img src="${picture}" width="400"></p>`;
    const alts = { 0: { kind: 'text', text: 'The sluice, open.' } };
    const { doc, pieces } = await broughtIn(await asPasted(html), { alts });
    expect(pieces.map(({ label }) => label.alt)).toEqual([{ kind: 'text', text: 'The sluice, open.' }]);
    expect(JSON.stringify(doc.blocks)).not.toContain('The sluice, open.');
    const again = await asPasted(html);
    expect((await page(again)).unworded).toEqual([]);
    const other = { 0: { kind: 'text', text: 'Water runs out.' } };
    const { doc: second, pieces: same } = await broughtIn(again, { alts: other });
    expect(same.map(({ id }) => id)).toEqual(pieces.map(({ id }) => id));
    expect(same.map(({ label }) => label.alt)).toEqual([{ kind: 'text', text: 'The sluice, open.' }]);
    expect(JSON.stringify(second.blocks)).toContain('Water runs out.');
  });

  it('takes in a film that lies as a file, and a recording that words lead to, and leaves what a host plays with it', async () => {
    const walk = server.at('reserve', '/old/films/walk.webm');
    const played = server.at('lanternreel', '/play/eel-pass-71');
    const html = `<title>Walk</title><p>Words.</p><video src="${walk}" width="480" controls></video><iframe src="${played}" width="480" height="270"></iframe><p>Or <a href="${walk}">take the film away</a>.</p>`;
    const { doc, pieces } = await broughtIn(await asPasted(html));
    expect(pieces.map(({ kind }) => kind).sort()).toEqual(['embed', 'film']);
    const film = pieces.find(({ kind }) => kind === 'film');
    const placed = doc.blocks.flatMap((block) => (block.type === 'placement' ? [block.attrs.asset] : []));
    expect(placed).toHaveLength(2);
    expect(placed).toContain(film?.id);
    expect(JSON.stringify(doc.blocks)).toContain(`file:${film?.id}`);
  });

  it('names the pages that it is made of by frames', async () => {
    const { framed } = await page(await atAddress('frames.htm'));
    expect(framed).toEqual(['counts.htm', 'tides.htm'].map((name) => server.at('reserve', `/old/${name}`)));
  });

  it('stands beside what becomes of it, and nothing of either runs', async () => {
    const { frames, list } = await page(await atAddress('eels.htm'));
    const found = await fetch(frames.found ?? '');
    expect(found.headers.get('content-security-policy')).toMatch(/default-src 'none'.*sandbox allow-scripts/);
    const html = await found.text();
    const [spot] = list.find(({ code }) => code === 'layout-table')?.spots ?? [];
    expect(html).toContain(`data-block="spot ${spot}"`);
    expect(html).not.toMatch(/<object|<embed|data-spot/);
    expect(html).toContain('/far/');
    const written = await (await fetch(frames.written ?? '')).text();
    expect(written).toContain('<h1>The Eel Pass!!</h1>');
    expect(written).toContain('<h2>What was counted</h2>');
    expect(written).not.toMatch(/<font|<center|bgcolor/);
  });

  it('comes in as a page, mended in a step of its own, and its pieces with it', async () => {
    const id = await atAddress('eels.htm');
    const { doc, pieces, version, target } = await broughtIn(id, { isOurs: true });
    expect(target.id).toBe('reserve');
    expect(doc.title).toBe('The Eel Pass!!');
    expect(doc.blocks.map(({ type }) => type)).toEqual([
      'placement',
      'paragraph',
      'placement',
      'paragraph',
      'paragraph',
      'paragraph',
      'placement',
      'heading',
      'placement',
      'paragraph',
    ]);
    expect(doc.blocks[0]).toMatchObject({
      attrs: { position: 'beside-left', width: { unit: 'px', value: 400 } },
    });
    expect(JSON.stringify(doc.blocks)).toContain('Tides this week');
    expect(JSON.stringify(doc.blocks)).not.toContain('warden.htm');
    expect(pieces).toHaveLength(4);
    expect(pieces.map(({ kind }) => kind).sort()).toEqual(['embed', 'picture', 'picture', 'picture']);
    expect(pieces.filter(({ label }) => label.licence === 'own')).toHaveLength(3);
    expect(pieces.some(({ stem }) => /dsc|471/.test(stem))).toBe(false);
    expect(version).toBe(2);
    const versions = await server.ask(`/api/pages/${(await page(id)).pageId}/versions`);
    expect(JSON.stringify(versions.body)).toContain('As it was brought in');
  });

  it('is taken back in one step, with what came new and nothing else uses', async () => {
    const id = await atAddress('boardwalk.htm');
    const { pieces } = await broughtIn(id);
    const { pageId, mayBeTakenBack } = await page(id);
    expect(mayBeTakenBack).toBe(true);
    const back = await server.ask(`/api/inherited/${id}/take-back`, { method: 'POST', body: {} });
    expect(v.parse(InheritedPageSchema, back.body)).toMatchObject({ state: 'read', pageId: null });
    expect((await server.ask(`/api/pages/${pageId}`)).status).toBe(404);
    const planks = pieces.find(({ kind }) => kind === 'picture');
    const gone = await server.ask(`/api/assets/${planks?.id}`);
    expect(JSON.stringify(gone.body)).toMatch(/thrown|deleted/i);
    // And may come in once more.
    await broughtIn(id);
  });

  it('is not taken back once somebody has worked on it', async () => {
    const id = await atAddress('counts.htm');
    const { doc, version } = await broughtIn(id);
    const { pageId } = await page(id);
    const title = { ...doc, title: 'Counts' };
    await server.ask(`/api/pages/${pageId}`, { method: 'PUT', version, body: { doc: title } });
    expect((await page(id)).mayBeTakenBack).toBe(false);
    const back = await server.ask(`/api/inherited/${id}/take-back`, { method: 'POST', body: {} });
    expect(back.status).toBe(409);
    expect(detailOf(back)).toMatch(/has worked on this page/);
  });

  it('in letters of an old machine is read in them', async () => {
    const found = await page(await atAddress('hides.htm'));
    expect(found.title).toBe('The hides – café and all');
    expect(found.list.map(({ code }) => code)).toContain('encoding');
  });

  it('uses a piece of the shelf that shows the same, and doubles nothing', async () => {
    const picture = await fetchPicture('/old/images/IMG_2214.jpg');
    const { asset } = arrivedOf(await server.handIn(picture, 'planks.jpg'));
    const id = await atAddress('gallery.htm');
    expect((await page(id)).list.map(({ code }) => code)).toContain('held');
    const { doc, pieces } = await broughtIn(id);
    expect(pieces.map((piece) => piece.id)).toContain(asset.id);
    expect(doc.blocks[0]).toMatchObject({ type: 'gallery' });
  });

  it('that is not there, or is no page, says so and leaves nothing', async () => {
    const gone = await page(await atAddress('nowhere.htm'));
    expect(gone).toMatchObject({ state: 'reading', frames: { found: null } });
    expect(gone.words).toMatch(/not there|nothing/i);
    const none = await page(await atAddress('images/sluice.jpg'));
    expect(none.words).toMatch(/no page of HTML/);
    const wish = await server.ask(`/api/inherited/${none.id}/bring-in`, { method: 'POST', body: WISH });
    expect(wish.status).toBe(409);
    expect((await server.ask(`/api/inherited/${none.id}`, { method: 'DELETE' })).status).toBe(204);
    expect((await server.ask(`/api/inherited/${none.id}`)).status).toBe(404);
  });

  it('comes in with what answers, where a picture of it does not', async () => {
    const html = `<title>a</title><img src="${server.at('reserve', '/old/gone.jpg')}" width="400" height="300" alt="Reeds at noon"><p>b</p>`;
    const id = await asPasted(html);
    expect((await page(id)).list[0]).toMatchObject({ code: 'picture-gone', outcome: 'asks' });
    const { doc } = await broughtIn(id);
    expect(doc.blocks.map(({ type }) => type)).toEqual(['paragraph']);
  });
});

describe('a killed process', () => {
  it('goes on where it was, and takes nothing in twice', async () => {
    const id = await atAddress('still.htm');
    await server.ask(`/api/inherited/${id}/bring-in`, { method: 'POST', body: WISH });
    await bringAll();
    const { pageId } = await page(id);
    // As if the process had ended before the page was made.
    await server.context.db.update(inheritedPages).set({ state: 'coming' });
    await server.context.db.update(jobs).set({ state: 'waiting' });
    await bringAll();
    const after = await page(id);
    expect(after).toMatchObject({ state: 'in', pageId });
    const { pieces } = v.parse(PageSchema, (await server.ask(`/api/pages/${pageId}`)).body);
    expect(pieces).toHaveLength(1);
  });
});

describe('a section of a site', () => {
  it('is read page by page from its sitemap, and comes in together', async () => {
    const { body } = await order({ kind: 'section', address: server.at('reserve', '/old/sitemap.xml') });
    const { ids, leftOut } = v.parse(BegunSchema, body);
    expect(ids.length).toBeGreaterThan(20);
    expect(leftOut).toEqual([]);
    await readAll();
    const list = v.parse(InheritedListSchema, (await server.ask('/api/inherited')).body);
    const own = list.filter((one) => ids.includes(one.id));
    expect(own.every(({ state }) => state === 'read')).toBe(true);
    expect(new Set(own.map(({ jobId }) => jobId)).size).toBe(1);
    const some = own.filter(({ source }) => /notes-[12]\.htm$/.test(source)).map((one) => one.id);
    await server.ask('/api/inherited/bring-in', { method: 'POST', body: { ids: some, ...WISH } });
    await bringAll();
    for (const id of some) expect((await page(id)).state).toBe('in');
  });

  it('is read from a page that links to it, without what is none of it', async () => {
    const { body } = await order({ kind: 'section', address: server.at('reserve', '/old/eels.htm') });
    const { ids } = v.parse(BegunSchema, body);
    const list = v.parse(InheritedListSchema, (await server.ask('/api/inherited')).body);
    const names = list.filter((one) => ids.includes(one.id)).map(({ source }) => source.split('/').at(-1));
    expect(names.sort()).toEqual(['eels.htm', 'gallery.htm', 'index.htm', 'tide.htm', 'warden.htm']);
    const none = await order({ kind: 'section', address: server.at('reserve', '/old/old.css') });
    expect(none.status).toBe(422);
    expect(detailOf(none)).toMatch(/Nothing at this address names pages/);
  });
});

describe('some pages of which one cannot be read', () => {
  it('are read all the same, and that one is tried again by itself', async () => {
    const addresses = ['tides.htm', 'nowhere.htm', 'counts.htm'].map((name) =>
      server.at('reserve', `/old/${name}`),
    );
    const { ids } = v.parse(BegunSchema, (await order({ kind: 'addresses', addresses })).body);
    await readAll();
    const states = await Promise.all(ids.map(page));
    expect(states.map(({ state, words }) => [state, words !== ''])).toEqual([
      ['read', false],
      ['reading', true],
      ['read', false],
    ]);
    const { jobId } = states[0] ?? { jobId: '' };
    const job = v.parse(JobSchema, (await server.ask(`/api/jobs/${jobId}`)).body);
    expect(job).toMatchObject({ state: 'failed', words: expect.stringMatching(/^2 of 3 are read/) });
    const path = `/api/jobs/${jobId}/go-on`;
    expect((await server.ask(path, { method: 'POST', body: {} })).status).toBe(202);
    await readAll();
    expect((await page(ids[1] ?? '')).words).not.toBe('');
    expect((await server.ask(`/api/inherited/${ids[1]}`, { method: 'DELETE' })).status).toBe(204);
  });
});

describe('a file', () => {
  const handIn = (bytes: Uint8Array, name: string) =>
    server.ask(`/api/inherited/files?targetId=reserve&name=${encodeURIComponent(name)}`, {
      method: 'POST',
      body: bytes,
      headers: { 'content-type': 'application/octet-stream' },
    });

  it('that is a ZIP gives its pages with the pictures beside them', async () => {
    const pixels = await sharp({ create: { width: 900, height: 600, channels: 3, background: '#486' } })
      .jpeg()
      .toBuffer();
    const html = Buffer.from(
      '<html lang="en"><title>Reed day</title><h1>Reed day</h1><p>We cut reeds.</p><img src="pics/Reed%20day.jpg" width="450" height="300" alt="Volunteers in the reeds">',
    );
    const zip = zipSync({ 'site/a.html': html, 'site/pics/Reed day.jpg': pixels, '../up.html': html });
    const answer = await handIn(zip, 'site.zip');
    const { ids, leftOut } = v.parse(BegunSchema, answer.body);
    expect(leftOut).toEqual(['“../up.html”: its name leads out of the file.']);
    await readAll();
    const found = await page(ids[0] ?? '');
    expect(found).toMatchObject({ state: 'read', title: 'Reed day', pictures: 1 });
    const { pieces, doc } = await broughtIn(ids[0] ?? '');
    expect(pieces[0]).toMatchObject({ width: 900, height: 600 });
    expect(doc.blocks).toHaveLength(2);
  });

  it('that is neither is refused in words', async () => {
    const none = await handIn(Buffer.from('just text'), 'a.txt');
    expect(none.status).toBe(415);
    expect(detailOf(none)).toBe('“a.txt” is neither a page of HTML nor a ZIP with pages. Nothing was taken.');
    const broken = await handIn(Buffer.from('PK\u0003\u0004 broken'), 'a.zip');
    expect(broken.status).toBe(415);
    const empty = await handIn(zipSync({ 'a.txt': Buffer.from('a') }), 'b.zip');
    expect(detailOf(empty)).toBe('There is no page of HTML in “b.zip”. Nothing was taken.');
  });
});

it('is for those who change pages', async () => {
  const refused = await order({ kind: 'html', html: '<p>a</p>', name: 'a', address: '' }, 'joss');
  expect(refused.status).toBe(403);
});

async function fetchPicture(path: string): Promise<Buffer> {
  const { bytes } = await server.context.outbound.read(server.at('reserve', path), {
    limits: { bytes: 20_000_000, millis: 10_000 },
  });
  return bytes;
}

describe('the text of a page', () => {
  const western = (text: string) => Buffer.from(text, 'latin1');
  it.each<
    readonly [
      what: string,
      bytes: Buffer,
      type: string | undefined,
      text: string,
      encoding: string,
      isSaid: boolean,
    ]
  >([
    ['UTF-8 that nobody speaks of', Buffer.from('<p>caf\u00e9'), undefined, '<p>caf\u00e9', 'utf-8', true],
    ['UTF-8 by its header', Buffer.from('<p>\u201c'), 'text/html; charset=utf-8', '<p>\u201c', 'utf-8', true],
    [
      'an old one that nobody speaks of',
      western('<p>\xe9 \x96'),
      undefined,
      '<p>\u00e9 \u2013',
      'windows-1252',
      false,
    ],
    [
      'an old one by its tag',
      western('<meta charset=iso-8859-1>\x80'),
      undefined,
      '<meta charset=iso-8859-1>\u20ac',
      'iso-8859-1',
      true,
    ],
    [
      'another than it says',
      western('<meta charset=utf-8>\xe9'),
      undefined,
      '<meta charset=utf-8>\u00e9',
      'windows-1252',
      false,
    ],
    [
      'one that nobody knows',
      Buffer.from('<p>\u00e9'),
      'text/html; charset=reed-8',
      '<p>\u00e9',
      'utf-8',
      false,
    ],
  ])('is read in %s', (_what, bytes, type, text, encoding, isSaid) => {
    expect(pageText(bytes, type)).toEqual({ text, encoding, isSaid });
  });
});
