import sharp from 'sharp';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ArrivedSchema, type Asset, AssetSchema } from '#api/assets.ts';
import { SidecarTakenSchema } from '#api/gather.ts';
import { EMPTY_LABEL } from '#core/rights/label.ts';
import { arrivedOf, detailOf, startTestServer, type TestServer, type Who } from '../testing.ts';
import { readSidecar } from './sidecar.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer('sidecar');
});
afterAll(() => server.close());

const xmp = (title: string, creator: string, more = '') =>
  `<?xpacket begin='' id='W5M0MpCehiHzreSzNTczkc9d'?><x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"><rdf:Description xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:xmpRights="http://ns.adobe.com/xap/1.0/rights/"><dc:title><rdf:Alt><rdf:li xml:lang="x-default">${title}</rdf:li></rdf:Alt></dc:title><dc:creator><rdf:Seq><rdf:li>${creator}</rdf:li></rdf:Seq></dc:creator>${more}</rdf:Description></rdf:RDF></x:xmpmeta>`;
const CC_BY = '<xmpRights:WebStatement>https://creativecommons.org/licenses/by/4.0/</xmpRights:WebStatement>';

let shade = 0;
function picture(artist?: string): Promise<Buffer> {
  shade += 7;
  const plain = sharp({
    create: { width: 300, height: 200, channels: 3, background: { r: shade, g: 120, b: 90 } },
  });
  return (artist ? plain.withExif({ IFD0: { Artist: artist } }) : plain).jpeg().toBuffer();
}

async function handInWith(bytes: Buffer, name: string, sidecar: string, as: Who = 'mara') {
  const uploadId = await server.upload(bytes, name, as);
  return server.ask('/api/arrivals', { as, method: 'POST', body: { uploadId, sidecar } });
}

const take = (file: string, text: string, as: Who = 'mara') =>
  server.ask('/api/sidecars', { as, method: 'POST', body: { file, text } });
const look = async (id: string) => v.parse(AssetSchema, (await server.ask(`/api/assets/${id}`)).body);
const say = (asset: Asset, label: object) =>
  server.ask(`/api/assets/${asset.id}`, { method: 'PATCH', version: asset.version, body: { label } });

describe('a sidecar that comes with its picture', () => {
  it('drafts the label, and speaks before the file does', async () => {
    const answer = await handInWith(
      await picture('The camera'),
      'DSC_0001.jpg',
      xmp('Heron &amp; eel', 'Ines Okonjo', CC_BY),
    );
    const { label, drafted } = v.parse(ArrivedSchema, answer.body).asset;
    expect(label).toMatchObject({ title: 'Heron & eel', creator: 'Ines Okonjo', licence: 'cc-by-4.0' });
    expect(drafted).toEqual(expect.arrayContaining(['title', 'creator', 'licence']));
  });

  it('that is none is refused with the reason, and nothing is taken in', async () => {
    const answer = await handInWith(await picture(), 'DSC_0002.jpg', 'MZ\u0000 not xmp');
    expect([answer.status, detailOf(answer)]).toEqual([422, 'This file is no XMP. Nothing was changed.']);
  });

  it('that was made to harm is read for what it says or not at all, in bounded time', async () => {
    const bomb = `<!DOCTYPE x [<!ENTITY a "aaaaaaaaaa">${Array.from({ length: 9 }, (_, at) => `<!ENTITY ${'abcdefghij'[at + 1]} "${`&${'abcdefghij'[at]};`.repeat(10)}">`).join('')}]>`;
    for (const text of [
      `${bomb}${xmp('&j;', 'Ines')}`,
      `<!DOCTYPE x [<!ENTITY f SYSTEM "file:///etc/passwd">]>${xmp('&f;', 'Ines')}`,
      xmp('<script>alert(1)</script>'.repeat(2000), 'Ines'),
      `<x:xmpmeta ${'<rdf:li>'.repeat(50_000)}`,
    ]) {
      const read = await readSidecar(server.context, text).catch(() => null);
      const title = String(read?.patch.title ?? '');
      expect(title.length).toBeLessThanOrEqual(300);
      expect(title).not.toContain('root:');
    }
  }, 60_000);
});

describe('a sidecar by itself', () => {
  it('goes onto the label of the piece that it is called after, where nobody has said otherwise', async () => {
    const { asset } = arrivedOf(await server.handIn(await picture(), 'Reed Bed.jpg'));
    await say(asset, { title: 'Reeds at dawn' });
    const taken = v.parse(
      SidecarTakenSchema,
      (await take('Reed Bed.jpg.xmp', xmp('Another title', 'Ines Okonjo', CC_BY))).body,
    );
    expect(taken.asset.id).toBe(asset.id);
    expect(taken.asset.label).toMatchObject({
      title: 'Reeds at dawn',
      creator: 'Ines Okonjo',
      licence: 'cc-by-4.0',
    });
    expect(taken.asset.drafted).toEqual(expect.arrayContaining(['creator', 'licence']));
    expect(taken.sentence).toBe(
      `On the label of ${asset.stem}.jpg now, as a draft: maker, licence. Said there already, and left: title.`,
    );
    const again = v.parse(
      SidecarTakenSchema,
      (await take('Reed Bed.xmp', xmp('Another title', 'Ines Okonjo', CC_BY))).body,
    );
    expect(again.sentence).toContain('nothing that the label');
    expect((await look(asset.id)).version).toBe(taken.asset.version);
  });

  it('is refused where no piece is called so, and for other people’s pieces', async () => {
    const gone = await take('Nowhere.xmp', xmp('A', 'B'));
    expect([gone.status, detailOf(gone)]).toEqual([422, expect.stringContaining('is called Nowhere')]);
    const { asset } = arrivedOf(await server.handIn(await picture(), 'hers.jpg', 'mara'));
    expect((await take(`${asset.stem}.xmp`, xmp('A', 'B'), 'joss')).status).toBe(403);
    const own = arrivedOf(await server.handIn(await picture(), 'his.jpg', 'joss')).asset;
    const taken = await take(`${own.stem}.xmp`, xmp('A', 'Joss Imrie', CC_BY), 'joss');
    // Licences are said by editors and rights keepers.
    expect(v.parse(SidecarTakenSchema, taken.body).asset.label).toMatchObject({
      creator: 'Joss Imrie',
      licence: 'unknown',
    });
  });
});

describe('a label taken away as a sidecar', () => {
  it('says all that the label says, to whatever reads XMP', async () => {
    const { asset } = arrivedOf(await server.handIn(await picture(), 'plate.jpg'));
    const label = {
      ...EMPTY_LABEL,
      title: 'Reed cutters, 1931 & “after”',
      creator: 'Tomas Reill',
      copyrightNotice: '© Saltmere <Archive>',
      licence: 'cc-by-sa-4.0',
      source: 'Wayside Archive',
      alt: { kind: 'text', text: 'Three men with scythes.' },
      caption: 'Öland, ćwiartka, 葦',
      extendedDescription: 'Line one\nLine two',
      place: 'Saltmere',
      dateCreated: '1931-03-01',
      keywords: ['reed', 'work'],
      translations: [
        {
          language: 'de',
          title: 'Reetschneider',
          alt: 'Drei Männer mit Sensen.',
          caption: '',
          extendedDescription: 'Eine\n\n- Liste',
        },
        { language: 'pt-BR', title: 'Ceifeiros', alt: '', caption: 'Na água', extendedDescription: '' },
      ],
    };
    expect((await say(asset, label)).status).toBe(200);
    const answer = await server.ask(`/api/assets/${asset.id}/label.xmp?target=reserve&position=column`);
    expect(answer.headers.get('content-disposition')).toContain(`${asset.stem}.xmp`);
    const { patch } = await readSidecar(server.context, String(answer.body));
    expect(patch).toMatchObject({
      title: label.title,
      creator: label.creator,
      copyrightNotice: label.copyrightNotice,
      licence: 'cc-by-sa-4.0',
      source: 'Wayside Archive',
      alt: label.alt,
      caption: label.caption,
      extendedDescription: label.extendedDescription,
      place: 'Saltmere',
      dateCreated: '1931-03-01',
      keywords: ['reed', 'work'],
      translations: label.translations,
    });
    const joss = await server.ask(`/api/assets/${asset.id}/label.xmp?target=reserve&position=column`, {
      as: 'joss',
    });
    expect(joss.status).toBe(403);
  });
});
