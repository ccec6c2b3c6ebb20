import { randomUUID } from 'node:crypto';
import express, { Router } from 'express';
import { type AgencyPicture, BRACKWATER, CURRENCY } from './catalogue.ts';
import { answersWords, escapeHtml, htmlPage } from './html.ts';
import { atMost, original } from './pictures.ts';

const PAGE = 6;
const COMP_PX = 1000;
const PREVIEW_PX = 480;

/** A picture agency: comps with its mark are free to try, originals are bought. */
export function brackwater(): Router {
  const router = Router();
  const bought = new Map<string, string>();

  router.get('/', (_request, response) => {
    response.type('html').send(htmlPage('Brackwater Pictures', '<p>Pictures to license.</p>'));
  });

  router.get('/api/search', async (request, response) => {
    const asked = typeof request.query.words === 'string' ? request.query.words : '';
    const orientation = request.query.orientation;
    const found = BRACKWATER.filter((picture) => {
      if (!answersWords(`${picture.title} ${picture.maker} ${picture.words}`, asked)) return false;
      if (orientation === 'landscape') return picture.width > picture.height;
      return orientation === 'portrait' ? picture.width < picture.height : true;
    });
    const page = Math.max(1, Number(request.query.page) || 1);
    const here = `${request.protocol}://${request.headers.host}`;
    response.json({
      total: found.length,
      next: page * PAGE < found.length ? page + 1 : null,
      results: await Promise.all(
        found.slice((page - 1) * PAGE, page * PAGE).map(async (picture) => {
          const { width, height } = await original(picture);
          return {
            id: picture.id,
            title: picture.title,
            photographer: picture.maker,
            original: { width, height },
            offer: { amount: picture.price, currency: CURRENCY, terms: picture.terms },
            comp: { address: `${here}/comps/${picture.id}.jpg` },
            preview: `${here}/previews/${picture.id}.jpg`,
            page: `${here}/pictures/${picture.id}`,
          };
        }),
      ),
    });
  });

  router.get('/pictures/:id', (request, response) => {
    const picture = byId(request.params.id);
    if (!picture) response.status(404).end();
    else
      response
        .type('html')
        .send(
          htmlPage(
            picture.title,
            `<figure><img src="/comps/${picture.id}.jpg" alt=""><figcaption>${escapeHtml(picture.maker)}, ${picture.id}. All rights reserved.</figcaption></figure>`,
          ),
        );
  });

  router.get(['/comps/:file', '/previews/:file'], async (request, response) => {
    const picture = byId(String(request.params.file).replace('.jpg', ''));
    if (!picture) {
      response.status(404).end();
      return;
    }
    const edge = request.path.startsWith('/comps') ? COMP_PX : PREVIEW_PX;
    response.type('jpeg').send(await atMost(picture, edge, `BRACKWATER · COMP ${picture.id}`));
  });

  router.post('/api/purchases', express.json({ limit: '10kb' }), (request, response) => {
    const { id, licensedTo } = (request.body ?? {}) as { id?: unknown; licensedTo?: unknown };
    const picture = typeof id === 'string' ? byId(id) : undefined;
    if (!picture || typeof licensedTo !== 'string' || licensedTo.trim() === '') {
      response.status(422).json({ error: 'Say which picture, and who licenses it.' });
      return;
    }
    const key = randomUUID();
    bought.set(key, picture.id);
    response.status(201).json({
      id: picture.id,
      licensedTo,
      amount: picture.price,
      currency: CURRENCY,
      terms: picture.terms,
      download: `${request.protocol}://${request.headers.host}/originals/${key}.jpg`,
    });
  });

  router.get('/originals/:file', async (request, response) => {
    const picture = byId(bought.get(request.params.file.replace('.jpg', '')) ?? '');
    if (picture) response.type('jpeg').send((await original(picture)).bytes);
    else response.status(403).type('text').send('Not bought.');
  });
  return router;
}

const byId = (id: string): AgencyPicture | undefined => BRACKWATER.find((picture) => picture.id === id);
