import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import { HtmlValidate } from 'html-validate';
import sharp from 'sharp';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { AssetSchema } from '#api/assets.ts';
import { JobSchema } from '#api/jobs.ts';
import { AS_IT_CAME } from '#core/media/recipe.ts';
import { USUAL_BANNER } from '#core/page/blocks/banner/schema.ts';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { emptyPage, type PageDoc } from '#core/page/model.ts';
import { assets, jobs } from '../db/schema.ts';
import { LEASE_MILLIS, takeJob } from '../jobs/queue.ts';
import { workOne } from '../jobs/worker.ts';
import { readPage } from '../pages/store.ts';
import { arrivedOf, detailOf, startTestServer, type TestServer } from '../testing.ts';
import { writeBundle } from './bundle.ts';
import { TAKE_AWAY } from './take-away.ts';

let server: TestServer;
let pageId: string;
let assetId: string;

const WORDS = { text: 'Booming\nagain', place: 'top', size: 60, ink: '#ffffff', plate: '#172126' } as const;

const doc = (): PageDoc => ({
  ...emptyPage('Bitterns are booming'),
  blocks: [
    {
      type: 'paragraph',
      attrs: { id: 'first' },
      content: [{ type: 'text', text: 'You hear them long before you see one.' }],
    },
    {
      type: 'placement',
      attrs: { ...newPlacement('one', assetId, 'beside-left'), ratio: { across: 1, down: 1 } },
    },
    { type: 'placement', attrs: { ...newPlacement('two', assetId, 'bleed'), click: { kind: 'larger' } } },
    {
      type: 'placement',
      attrs: {
        ...newPlacement('three', assetId, 'column'),
        click: { kind: 'link', href: 'https://reserve.example/booming' },
        prep: { ...AS_IT_CAME, words: WORDS },
      },
    },
  ],
});

beforeAll(async () => {
  server = await startTestServer('deliver');
  const pixels = await sharp({ create: { width: 1500, height: 1000, channels: 3, background: '#7a9' } })
    .jpeg()
    .toBuffer();
  const { asset } = arrivedOf(await server.handIn(pixels, 'heron.jpg'));
  assetId = asset.id;
  const label = {
    title: 'Heron',
    creator: 'Ines Okonjo',
    licence: 'cc-by-4.0',
    alt: { kind: 'text', text: 'A heron in the reeds.' },
    copyrightNotice: '© Ines Okonjo',
  };
  await server.ask(`/api/assets/${assetId}`, { method: 'PATCH', body: { label }, version: 1 });
  const made = await server.ask('/api/pages', {
    method: 'POST',
    body: { title: 'x', targetId: 'reserve', wants: [] },
  });
  pageId = v.parse(v.object({ id: v.string() }), made.body).id;
  await server.ask(`/api/pages/${pageId}`, { method: 'PUT', body: { doc: doc() }, version: 1 });
});
afterAll(() => server.close());

const order = (as: 'mara' | 'joss' = 'mara') =>
  server.ask(`/api/pages/${pageId}/take-away`, { as, method: 'POST', body: {} });
const jobOf = async (id: string) => v.parse(JobSchema, (await server.ask(`/api/jobs/${id}`)).body);

const RedirectsSchema = v.array(v.strictObject({ from: v.string(), to: v.string(), status: v.literal(301) }));

describe('a bundle of a page with a teaser and a banner', () => {
  let folder: string;
  let files: readonly string[];
  beforeAll(async () => {
    folder = await mkdtemp(join(tmpdir(), 'placard-teaser-test-'));
    const whole = await readPage(server.context, pageId, 'house');
    const picture = (id: string) => ({
      type: 'placement' as const,
      attrs: { ...newPlacement(id, assetId), ratio: { across: 3, down: 2 } },
    });
    const blocks: PageDoc['blocks'] = [
      {
        type: 'teaser',
        attrs: { id: 'teaser', title: '', words: 'Boats & booms.' },
        content: [picture('teased')],
      },
      {
        type: 'banner',
        attrs: { id: 'banner', ...USUAL_BANNER, position: 'bleed', link: '/booming' },
        content: [
          picture('ground'),
          {
            type: 'bannerWords',
            attrs: { id: 'over' },
            content: [
              {
                type: 'heading',
                attrs: { id: 'head', level: 2 },
                content: [{ type: 'text', text: 'Booming' }],
              },
            ],
          },
        ],
      },
    ];
    const doc = { ...emptyPage('Bitterns are booming'), lead: 'ground', blocks };
    files = await writeBundle(server.context, { ...whole, doc }, folder, async () => {});
  });
  afterAll(() => rm(folder, { recursive: true, force: true }));
  const text = (name: string) => readFile(join(folder, name), 'utf8');

  it('has the teaser in a file of its own, whose pictures are there, and nothing of it on the page', async () => {
    const [page, teaser] = await Promise.all([text('index.html'), text('teaser.html')]);
    expect(page).not.toContain('Boats &amp; booms.');
    expect(page.match(/<figure/g)).toHaveLength(1);
    expect(teaser).toContain(
      '<h2><a href="index.html">Bitterns are booming</a></h2>\n<p>Boats &amp; booms.</p>',
    );
    const named = new Set([...`${page}${teaser}`.matchAll(/media\/[a-z0-9.-]+/g)].map(([name]) => name));
    expect(new Set(files.filter((name) => name.startsWith('media/')))).toEqual(named);
  });

  it.each(['index.html', 'teaser.html'])('has a valid %s', async (name) => {
    const report = await new HtmlValidate({ extends: ['html-validate:standard'] }).validateString(
      await text(name),
    );
    expect(report.results.flatMap(({ messages }) => messages)).toEqual([]);
  });
});

describe('a bundle', () => {
  let folder: string;
  let files: readonly string[];
  beforeAll(async () => {
    folder = await mkdtemp(join(tmpdir(), 'placard-bundle-test-'));
    files = await writeBundle(
      server.context,
      await readPage(server.context, pageId, 'house'),
      folder,
      async () => {},
    );
  });
  afterAll(() => rm(folder, { recursive: true, force: true }));
  const text = (name: string) => readFile(join(folder, name), 'utf8');

  it('holds every file its page names, and no other', async () => {
    const html = await text('index.html');
    const named = new Set([...html.matchAll(/media\/[a-z0-9.-]+/g)].map(([name]) => name));
    expect(new Set(files.filter((name) => name.startsWith('media/')))).toEqual(named);
    expect(await readdir(join(folder, 'media'))).toHaveLength(named.size);
    expect([...named].some((name) => name.endsWith('.avif'))).toBe(true);
  });

  it('has cuts of the size their page says, in the format their name says', async () => {
    const html = await text('index.html');
    for (const [, name = '', width] of html.matchAll(/(media\/[a-z0-9.-]+) (\d+)w/g)) {
      const metadata = await sharp(join(folder, name)).metadata();
      expect(metadata.width).toBe(Number(width));
      if (name.includes('1x1')) expect(metadata.height).toBe(Number(width));
      expect({ avif: 'heif', webp: 'webp', jpg: 'jpeg' }[name.split('.').at(-1) ?? '']).toBe(metadata.format);
    }
  });

  it.each(['avif', 'webp', 'jpg'])('has its label inside each %s', async (extension) => {
    const name = files.find((file) => file.endsWith(`.${extension}`)) ?? '';
    const tags = await server.context.metadata.read(join(folder, name));
    expect(tags).toMatchObject({
      'XMP-dc:Title': 'Heron',
      'XMP-iptcCore:AltTextAccessibility': 'A heron in the reeds.',
      'XMP-xmpRights:WebStatement': 'https://creativecommons.org/licenses/by/4.0/',
    });
    expect(JSON.stringify(tags)).not.toContain('GPS');
  });

  it('says in each cut what was changed in that one, and in no other', async () => {
    const creditOf = async (part: (name: string) => boolean) => {
      const name = files.find((file) => file.endsWith('.jpg') && part(file)) ?? '';
      return String((await server.context.metadata.read(join(folder, name)))['XMP-photoshop:Credit']);
    };
    expect(await creditOf((name) => name.includes('1x1'))).toMatch(/Ines Okonjo.*cropped/);
    const whole = await creditOf((name) => !name.includes('1x1'));
    expect(whole).toContain('Ines Okonjo');
    expect(whole).not.toContain('cropped');
  });

  it.each(['index.html', 'credits.html'])('has a valid %s', async (name) => {
    const report = await new HtmlValidate({ extends: ['html-validate:standard'] }).validateString(
      await text(name),
    );
    expect(
      report.results
        .flatMap((result) => result.messages)
        .map((message) => `${message.line}: ${message.message}`),
    ).toEqual([]);
  });

  it('has words over a picture as text, laid there by its style sheet, and not in the file', async () => {
    expect(await text('index.html')).toContain('<span>Booming<br>again</span>');
    expect(await text('style.css')).toContain('.placed .over.plated');
    expect(await text('credits.html')).toContain('lettered');
  });

  it('says its credits for people and for machines', async () => {
    expect(await text('credits.html')).toContain('Photo: © Ines Okonjo');
    const { '@graph': graph } = v.parse(
      v.looseObject({ '@graph': v.array(v.looseObject({ license: v.string() })) }),
      JSON.parse(await text('media.jsonld')),
    );
    expect(graph.map(({ license }) => license)).toEqual(
      Array.from({ length: 3 }, () => 'https://creativecommons.org/licenses/by/4.0/'),
    );
  });
});

describe('taking a page away', () => {
  it('is a job that ends in a ZIP', async () => {
    const { id } = v.parse(JobSchema, (await order()).body);
    expect(await workOne(server.context)).toBe(true);
    const job = await jobOf(id);
    expect(job).toMatchObject({ state: 'done', title: 'bitterns-are-booming' });
    const file = await server.ask(job.file ?? '');
    expect(file.headers.get('content-disposition')).toContain('bitterns-are-booming.zip');
    expect(Buffer.isBuffer(file.body) && file.body.subarray(0, 2).toString()).toBe('PK');
    expect((await server.ask(job.file ?? '', { as: 'piet' })).status).toBe(404);
  });

  it('keeps the names its files went out under, and says where they went once a piece is renamed', async () => {
    const bundleAgain = async () => {
      const folder = await mkdtemp(join(tmpdir(), 'placard-bundle-test-'));
      const whole = await readPage(server.context, pageId, 'house');
      const files = await writeBundle(server.context, whole, folder, async () => {});
      const redirects = await readFile(join(folder, 'redirects.json'), 'utf8').catch(() => '[]');
      await rm(folder, { recursive: true });
      return { files, redirects: v.parse(RedirectsSchema, JSON.parse(redirects)) };
    };
    const before = await bundleAgain();
    expect(before.redirects).toEqual([]);
    const rename = async (stem: string) => {
      const { version } = v.parse(AssetSchema, (await server.ask(`/api/assets/${assetId}`)).body);
      await server.ask(`/api/assets/${assetId}`, { method: 'PATCH', body: { stem }, version });
    };
    await rename('heron-in-the-reeds');
    const after = await bundleAgain();
    const old = before.files.filter((name) => name.startsWith('media/'));
    expect(new Set(after.redirects.map(({ from }) => from))).toEqual(new Set(old));
    for (const { to } of after.redirects) expect(after.files).toContain(to);
    await rename('heron');
  });

  it('can be stopped before it begins, and while it runs', async () => {
    const { id } = v.parse(JobSchema, (await order()).body);
    await server.ask(`/api/jobs/${id}/stop`, { method: 'POST', body: {} });
    expect((await jobOf(id)).state).toBe('stopped');
    const { id: second } = v.parse(JobSchema, (await order()).body);
    await server.context.db.update(jobs).set({ stopAsked: true }).where(eq(jobs.id, second));
    await workOne(server.context);
    expect(await jobOf(second)).toMatchObject({ state: 'stopped', words: 'Stopped. Nothing was changed.' });
  });

  it('is taken over when its worker died, and given to one worker only', async () => {
    const { id } = v.parse(JobSchema, (await order()).body);
    const now = new Date();
    const [first, second] = await Promise.all([
      takeJob(server.context, [TAKE_AWAY], now),
      takeJob(server.context, [TAKE_AWAY], now),
    ]);
    expect([first?.id, second?.id].filter(Boolean)).toEqual([id]);
    expect(await takeJob(server.context, [TAKE_AWAY], now)).toBeUndefined();
    const later = await takeJob(server.context, [TAKE_AWAY], new Date(now.getTime() + LEASE_MILLIS + 1000));
    expect(later?.id).toBe(id);
    await server.context.db.update(jobs).set({ state: 'stopped' }).where(eq(jobs.id, id));
  });

  it('is refused while something stops sending, with what and where to go', async () => {
    const [row] = await server.context.db.select().from(assets).where(eq(assets.id, assetId));
    if (!row) throw new Error('no piece');
    await server.context.db
      .update(assets)
      .set({ label: { ...row.label, licence: 'cc-by-nc-4.0' } })
      .where(eq(assets.id, assetId));
    const answer = await order();
    expect(answer.status).toBe(409);
    expect(detailOf(answer)).toContain('Heron may not be used like this and 2 more');
    await server.context.db.update(assets).set({ label: row.label }).where(eq(assets.id, assetId));
  });
});
