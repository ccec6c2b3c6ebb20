import express, { Router } from 'express';
import { AGENCY_OFFERS, type AgencyPicture, BRACKWATER, CURRENCY } from './catalogue.ts';
import { answersWords, escapeHtml, htmlPage } from './html.ts';
import { atMost, original } from './pictures.ts';

const PAGE = 6;
const COMP_PX = 1000;
const PREVIEW_PX = 480;

/** A picture agency: comps with its mark are free to try, originals are bought. */
export function brackwater(): Router {
  const router = Router();
  const orders = new Map<string, { readonly picture: string; readonly charged: number }>();

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
    response
      .type('jpeg')
      .send(await atMost(picture, edge, `BRACKWATER · COMP ${picture.id}`, picture.isCompSquare));
  });

  router.get('/api/pictures/:id/offers', (request, response) => {
    const picture = byId(request.params.id);
    if (picture)
      response.json({ id: picture.id, offers: AGENCY_OFFERS.map((offer) => offerOf(picture, offer)) });
    else response.status(404).json({ error: 'There is no such picture.' });
  });

  // An order has a key of the buyer's: put again under the same one, it is the same order and is paid for once.
  router.put('/api/orders/:key', express.json({ limit: '10kb' }), (request, response) => {
    const { key } = request.params;
    const { picture: id, offer: offerId, licensedTo } = (request.body ?? {}) as Record<string, unknown>;
    const picture = typeof id === 'string' ? byId(id) : undefined;
    const offer = AGENCY_OFFERS.find((one) => one.id === offerId);
    if (!picture || !offer || typeof licensedTo !== 'string' || licensedTo.trim() === '') {
      response.status(422).json({ error: 'Say which picture, which offer, and who licenses it.' });
      return;
    }
    const before = orders.get(key);
    const order = before ?? { picture: picture.id, charged: offerOf(picture, offer).amount };
    orders.set(key, order);
    response.status(before ? 200 : 201).json({
      picture: picture.id,
      offer: offerOf(picture, offer),
      licensedTo,
      receipt: `R-${picture.id}-${key.slice(0, 8)}`,
      file: `${request.protocol}://${request.headers.host}/originals/${key}.jpg`,
    });
  });

  router.get('/api/account', (_request, response) => {
    response.json({ charges: [...orders].map(([key, { picture, charged }]) => ({ key, picture, charged })) });
  });

  router.get('/originals/:file', async (request, response) => {
    const picture = byId(orders.get(request.params.file.replace('.jpg', ''))?.picture ?? '');
    if (picture) response.type('jpeg').send((await original(picture)).bytes);
    else response.status(403).type('text').send('Not bought.');
  });
  return router;
}

const byId = (id: string): AgencyPicture | undefined => BRACKWATER.find((picture) => picture.id === id);

function offerOf({ price }: AgencyPicture, { times, ...offer }: (typeof AGENCY_OFFERS)[number]) {
  return { ...offer, amount: Math.round(price * times), currency: CURRENCY };
}
