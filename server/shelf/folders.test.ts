import sharp from 'sharp';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { AssetSchema, FolderListSchema } from '#api/assets.ts';
import { arrivedOf, detailOf, startTestServer, type TestServer, type Who } from '../testing.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer('folders');
});
afterAll(() => server.close());

const post = (path: string, body: object, as: Who = 'mara') =>
  server.ask(`/api/folders${path}`, { as, method: 'POST', body });
const paths = async () =>
  v.parse(FolderListSchema, (await server.ask('/api/folders')).body).map(({ path }) => path);

let red = 0;
async function pieceIn(folder: string): Promise<string> {
  red += 9;
  const background = { r: red, g: 120, b: 90 };
  const bytes = await sharp({ create: { width: 40, height: 30, channels: 3, background } })
    .png()
    .toBuffer();
  const { asset } = arrivedOf(await server.handIn(bytes, `reed-${red}.png`));
  await server.ask(`/api/assets/${asset.id}`, { method: 'PATCH', version: 1, body: { folder } });
  return asset.id;
}
const folderOf = async (id: string) =>
  v.parse(AssetSchema, (await server.ask(`/api/assets/${id}`)).body).folder;

describe('folders', () => {
  it('are made web-safe, with those above them', async () => {
    const made = await post('', { path: 'Événements / Reed cutting' });
    expect([made.status, made.body]).toEqual([201, { path: 'evenements/reed-cutting' }]);
    expect(await paths()).toEqual(['evenements', 'evenements/reed-cutting']);
    expect((await post('', { path: 'evenements' })).status).toBe(409);
  });

  it('are moved with all that lies in them and below, and back', async () => {
    const [one, two, other] = [
      await pieceIn('marsh'),
      await pieceIn('marsh/hides'),
      await pieceIn('marshland'),
    ];
    expect((await post('/move', { from: 'marsh', to: 'Nature / Salt marsh' })).body).toEqual({
      path: 'nature/salt-marsh',
    });
    expect([await folderOf(one), await folderOf(two), await folderOf(other)]).toEqual([
      'nature/salt-marsh',
      'nature/salt-marsh/hides',
      'marshland',
    ]);
    expect(await paths()).toContain('nature/salt-marsh/hides');
    expect(await paths()).not.toContain('marsh');
    await post('/move', { from: 'nature/salt-marsh', to: 'marsh' });
    expect([await folderOf(one), await folderOf(two)]).toEqual(['marsh', 'marsh/hides']);
  });

  it.each([
    ['into itself', '/move', { from: 'marsh', to: 'marsh/hides/marsh' }, 422, 'into itself'],
    ['onto another', '/move', { from: 'marsh', to: 'evenements' }, 409, 'There is a folder'],
    ['too deep', '/move', { from: 'marsh', to: 'a/b/c/d/e' }, 422, 'at most 5 deep'],
    ['that is not there', '/move', { from: 'nowhere', to: 'x' }, 404, 'not here'],
    ['of no letters', '', { path: '/ … /' }, 422, 'Nothing of this name'],
    ['six deep', '', { path: 'a/b/c/d/e/f' }, 422, 'at most 5 deep'],
    ['with pieces in it', '/remove', { path: 'marsh' }, 409, '2 pieces lie in marsh'],
  ])('%s: it is refused in a sentence, and nothing changes', async (_what, path, body, status, sentence) => {
    const before = await paths();
    const answer = await post(path, body);
    expect(answer.status).toBe(status);
    expect(detailOf(answer)).toContain(sentence);
    expect(await paths()).toEqual(before);
  });

  it('that are empty are removed, by those who may', async () => {
    expect((await post('/remove', { path: 'evenements' }, 'joss')).status).toBe(403);
    expect((await post('/remove', { path: 'evenements' })).status).toBe(204);
    expect(await paths()).not.toContain('evenements/reed-cutting');
  });
});
