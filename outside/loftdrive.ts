import { type Request, Router } from 'express';
import { type DriveFile, LOFTDRIVE } from './catalogue.ts';
import { htmlPage } from './html.ts';
import { atMost, original } from './pictures.ts';

const THUMB_PX = 480;

/** Albums on a cloud drive. */
export function loftdrive(): Router {
  const router = Router();

  router.get('/', (_request, response) => {
    response.type('html').send(htmlPage('Loftdrive', '<p>Albums of the reserve.</p>'));
  });

  router.get('/api/albums', (_request, response) => {
    response.json({ albums: LOFTDRIVE.map(({ id, name, files }) => ({ id, name, files: files.length })) });
  });

  router.get('/api/albums/:id', async (request, response) => {
    const album = LOFTDRIVE.find(({ id }) => id === request.params.id);
    if (!album) {
      response.status(404).json({ error: 'There is no such album.' });
      return;
    }
    const here = originOf(request);
    response.json({
      id: album.id,
      name: album.name,
      files: await Promise.all(album.files.map((file) => presented(file, here))),
    });
  });

  router.get('/download/:file', async (request, response) => {
    const file = byId(request.params.file.replace('.jpg', ''));
    if (file) response.type('jpeg').send((await original(file)).bytes);
    else response.status(404).end();
  });

  router.get('/thumbs/:file', async (request, response) => {
    const file = byId(request.params.file.replace('.jpg', ''));
    if (file) response.type('jpeg').send(await atMost(file, THUMB_PX));
    else response.status(404).end();
  });
  return router;
}

const originOf = (request: Request) => `${request.protocol}://${request.headers.host}`;
const byId = (id: string) => LOFTDRIVE.flatMap(({ files }) => files).find((file) => file.id === id);

async function presented(file: DriveFile, here: string) {
  const { width, height, bytes } = await original(file);
  return {
    id: file.id,
    name: file.name,
    width,
    height,
    bytes: bytes.length,
    revision: `r${file.revision}`,
    download: `${here}/download/${file.id}.jpg`,
    thumb: `${here}/thumbs/${file.id}.jpg`,
  };
}
