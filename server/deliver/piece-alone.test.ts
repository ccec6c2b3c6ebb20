import { execFile } from 'node:child_process';
import { mkdir, readdir, writeFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { HtmlValidate } from 'html-validate';
import sharp from 'sharp';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { AuditListSchema } from '#api/audit.ts';
import { FigureSchema } from '#api/figures.ts';
import type { LabelPatch } from '#core/rights/label.ts';
import { arrivedOf, detailOf, startTestServer, type TestServer } from '../testing.ts';

const run = promisify(execFile);
let server: TestServer;
beforeAll(async () => {
  server = await startTestServer('piece_alone');
});
afterAll(() => server.close());

async function piece(said: LabelPatch): Promise<string> {
  const noise = { type: 'gaussian', mean: 128, sigma: 30 } as const;
  const bytes = await sharp({ create: { width: 1200, height: 800, channels: 3, background: '#7a9', noise } })
    .jpeg()
    .toBuffer();
  const { id, version } = arrivedOf(await server.handIn(bytes, 'heron.jpg')).asset;
  await server.ask(`/api/assets/${id}`, { method: 'PATCH', body: { label: said }, version });
  return id;
}

const HERON: LabelPatch = {
  title: 'Heron [at] the sluice',
  creator: 'Ines Okonjo',
  licence: 'cc-by-4.0',
  sourceAddress: 'https://commonfield.example/ines_okonjo',
  source: 'Commonfield',
  alt: { kind: 'text', text: 'A heron & its <shadow>.' },
  caption: 'Waiting.',
  keywords: ['heron', 'sluice'],
};

describe('one piece for use elsewhere', () => {
  it('is its figure with alt text, caption and credit, as code and with the picture in it', async () => {
    const id = await piece(HERON);
    const answer = await server.ask(
      `/api/assets/${id}/figure?target=reserve&position=beside-right&files=https://files.example/m/`,
    );
    const figure = v.parse(FigureSchema, answer.body);
    expect(figure.html).toContain('alt="A heron &amp; its &lt;shadow&gt;."');
    expect(figure.html).toContain('https://files.example/m/heron--');
    expect(figure.html).toContain('rel="license"');
    expect(figure.html).toMatch(/float:\s*right/);
    expect(figure.html).not.toContain('<h1');
    expect(figure.rich).toContain('src="data:image/');
    expect(figure.rich).not.toContain('srcset');
    expect(figure.credit).toBe('Photo: Ines Okonjo, Commonfield, CC BY 4.0.');
    expect(figure.markdown).toBe(
      'Photo: Ines Okonjo, [Commonfield](<https://commonfield.example/ines_okonjo>), [CC BY 4.0](<https://creativecommons.org/licenses/by/4.0/>).',
    );
    const validator = new HtmlValidate({
      extends: ['html-validate:standard'],
      rules: { 'no-inline-style': 'off' },
    });
    const report = await validator.validateString(figure.html);
    expect(report.results.flatMap(({ messages }) => messages.map(({ message }) => message))).toEqual([]);
  });

  it('comes with its files, whose labels another program reads', async () => {
    const id = await piece({ ...HERON, title: 'Heron for others' });
    const response = await server.listen(`/api/assets/${id}/figure.zip?target=reserve&position=column`);
    expect(response.status).toBe(200);
    const folder = join(server.folder, 'unpacked');
    await mkdir(folder, { recursive: true });
    const zip = join(folder, 'figure.zip');
    await writeFile(zip, Buffer.from(await response.arrayBuffer()));
    await run('python3', ['-m', 'zipfile', '-e', zip, folder]);
    const files = await readdir(join(folder, 'media'));
    expect(files.length).toBeGreaterThan(2);
    const exiftool = createRequire(import.meta.url).resolve('exiftool-vendored.pl/bin/exiftool');
    const { stdout } = await run('perl', [
      exiftool,
      '-j',
      '-G',
      ...files.map((file) => join(folder, 'media', file)),
    ]);
    const all = v.parse(
      v.array(v.looseObject({ 'XMP:Creator': v.string(), 'XMP:Title': v.string() })),
      JSON.parse(stdout),
    );
    for (const tags of all)
      expect(tags).toMatchObject({
        'XMP:Title': 'Heron for others',
        'XMP:Creator': 'Ines Okonjo',
        'XMP:Credit': 'Photo: Ines Okonjo, Commonfield, CC BY 4.0.',
        'XMP:WebStatement': 'https://creativecommons.org/licenses/by/4.0/',
      });
  });

  it('goes through the same gate as a page', async () => {
    const id = await piece({ licence: 'comp', alt: { kind: 'text', text: 'The marsh.' } });
    for (const way of ['figure', 'figure.zip']) {
      const refused = await server.ask(`/api/assets/${id}/${way}?target=reserve&position=column`);
      expect(refused.status).toBe(409);
      expect(detailOf(refused)).toContain('is a comp');
    }
    expect(
      (await server.ask(`/api/assets/${id}/figure?target=reserve&position=column`, { as: 'joss' })).status,
    ).toBe(403);
  });

  it('is written down when it is copied, and not while it is looked at', async () => {
    const id = await piece(HERON);
    const logged = async () => {
      const { body } = await server.ask('/api/audit?what=sent', { as: 'sunniva' });
      return v.parse(AuditListSchema, body).lines;
    };
    const before = (await logged()).length;
    await server.ask(`/api/assets/${id}/figure?target=reserve&position=column`);
    expect(await logged()).toHaveLength(before);
    const told = await server.ask(`/api/assets/${id}/figure/copied`, {
      method: 'POST',
      body: { target: 'reserve', position: 'column', as: 'code' },
    });
    expect(told.status).toBe(204);
    expect((await logged()).map(({ detail }) => detail)).toContain('as code');
  });
});
