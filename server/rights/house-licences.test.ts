import sharp from 'sharp';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Asset, AssetListSchema, AssetSchema } from '#api/assets.ts';
import { KeptLicenceSchema, LedgerSchema } from '#api/rights.ts';
import type { HouseLicence } from '#core/rights/house-licence.ts';
import { arrivedOf, detailOf, startTestServer, type TestServer, type Who } from '../testing.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer('house_licences');
});
afterAll(() => server.close());

const ARCHIVE: HouseLicence = {
  id: 'town-archive',
  name: 'Saltmere Town Archive, standing agreement',
  short: 'Town Archive agreement',
  address: '',
  publish: true,
  decision: false,
  commercial: false,
  educationalOnly: false,
  onlyIn: null,
  allowsDerivatives: true,
  owesCredit: 'yes',
  keepsNotice: true,
  sayChanges: true,
  shareAlike: false,
  titleInCredit: 'no',
};

const keep = (licence: HouseLicence, version: number, as: Who = 'piet') =>
  server.ask(`/api/licences/${licence.id}`, { as, method: 'PUT', body: licence, version });
const remove = (id: string, version: number) =>
  server.ask(`/api/licences/${id}`, { as: 'piet', method: 'DELETE', version });

let shade = 0;
async function piece(usageTerms?: string): Promise<Asset> {
  shade += 10;
  const plain = sharp({
    create: { width: 300, height: 200, channels: 3, background: { r: shade, g: 80, b: 60 } },
  });
  const xmp = `<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"><rdf:Description xmlns:xmpRights="http://ns.adobe.com/xap/1.0/rights/"><xmpRights:UsageTerms><rdf:Alt><rdf:li xml:lang="x-default">${usageTerms}</rdf:li></rdf:Alt></xmpRights:UsageTerms></rdf:Description></rdf:RDF></x:xmpmeta>`;
  const bytes = await (usageTerms === undefined ? plain : plain.withXmp(xmp)).jpeg().toBuffer();
  return arrivedOf(await server.handIn(bytes, `reed-${shade}.jpg`)).asset;
}

const say = (asset: Asset, label: object) =>
  server.ask(`/api/assets/${asset.id}`, { method: 'PATCH', version: asset.version, body: { label } });
const look = async (id: string) => v.parse(AssetSchema, (await server.ask(`/api/assets/${id}`)).body);

describe('licences of the house', () => {
  it('are made by whoever decides on rights, once, and called as nothing else is', async () => {
    expect((await keep(ARCHIVE, 0, 'mara')).status).toBe(403);
    expect((await keep(ARCHIVE, 0)).status).toBe(200);
    // Sent again after a lost line.
    expect(v.parse(KeptLicenceSchema, (await keep(ARCHIVE, 0)).body).version).toBe(1);
    const other = await keep({ ...ARCHIVE, id: 'other' }, 0);
    expect([other.status, detailOf(other)]).toEqual([409, expect.stringContaining('says Saltmere Town')]);
    const catalogued = await keep({ ...ARCHIVE, id: 'other', name: 'Other', short: 'CC BY 4.0' }, 0);
    expect(catalogued.status).toBe(409);
    const clash = await keep({ ...ARCHIVE, commercial: true }, 0);
    expect(clash.status).toBe(412);
  });

  it('stand on labels as they are kept, whatever was sent, and labels follow them', async () => {
    const asset = await piece();
    const sent = { licence: 'house', houseLicence: { ...ARCHIVE, commercial: true, name: 'Made up' } };
    const said = v.parse(AssetSchema, (await say(asset, sent)).body);
    expect(said.label.houseLicence).toEqual(ARCHIVE);
    expect((await keep({ ...ARCHIVE, shareAlike: true }, 1)).status).toBe(200);
    const followed = await look(asset.id);
    expect(followed.label.houseLicence).toEqual({ ...ARCHIVE, shareAlike: true });
    // Whoever had the label open is told, instead of writing over it.
    expect((await say(said, { title: 'Reeds' })).status).toBe(412);
    const free = v.parse(AssetSchema, (await say(followed, { licence: 'cc0' })).body);
    expect(free.label.houseLicence).toBeNull();
    const gone = await say(free, { licence: 'house', houseLicence: { ...ARCHIVE, id: 'nowhere' } });
    expect(gone.status).toBe(422);
  });

  it('are asked for on the shelf and in the ledger by what they say', async () => {
    const asset = await piece();
    await say(asset, { licence: 'house', houseLicence: ARCHIVE });
    const shelf = async (licence: string) =>
      v
        .parse(AssetListSchema, (await server.ask(`/api/assets?licence=${licence}`)).body)
        .assets.map(({ id }) => id);
    expect(await shelf('house:town-archive')).toEqual([asset.id]);
    expect(await shelf('changeable')).toContain(asset.id);
    expect(await shelf('commercial')).not.toContain(asset.id);
    const ledger = async (matter: string) =>
      v
        .parse(LedgerSchema, (await server.ask(`/api/rights?matter=${matter}&place=anywhere`)).body)
        .rows.map((row) => row.asset.id);
    expect(await ledger('owes-credit')).toContain(asset.id);
    expect(await ledger('not-cleared')).not.toContain(asset.id);
    await keep({ ...ARCHIVE, publish: false, owesCredit: 'no' }, 2);
    expect(await ledger('not-cleared')).toContain(asset.id);
    expect(await ledger('waits')).toContain(asset.id);
    expect(await ledger('owes-credit')).not.toContain(asset.id);
    expect(await shelf('changeable')).not.toContain(asset.id);
    await keep(ARCHIVE, 3);
  });

  it('are known by their name in a file that comes in, as a claim', async () => {
    const asset = await piece('Town Archive agreement');
    expect(asset.label).toMatchObject({ licence: 'house', houseLicence: { id: 'town-archive' } });
    expect(asset.drafted).toContain('licence');
    expect((await piece('Town Archive')).label.licence).toBe('unknown');
  });

  it('stay while a piece carries them, and are removed once', async () => {
    const refused = await remove('town-archive', 4);
    expect([refused.status, detailOf(refused)]).toEqual([
      409,
      expect.stringContaining('pieces carry it, so it stays'),
    ]);
    const short = { ...ARCHIVE, id: 'short-lived', name: 'Short-lived', short: 'For a day' };
    await keep(short, 0);
    expect((await remove('short-lived', 7)).status).toBe(412);
    expect((await remove('short-lived', 1)).status).toBe(204);
    expect((await remove('short-lived', 1)).status).toBe(204);
    const listed = v.parse(v.array(KeptLicenceSchema), (await server.ask('/api/licences')).body);
    expect(listed.map(({ licence }) => licence.id)).toEqual(['town-archive']);
  });
});
