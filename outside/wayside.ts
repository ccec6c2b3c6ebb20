import { Router } from 'express';
import { type Plate, WAYSIDE } from './catalogue.ts';
import { answersWords, escapeHtml, htmlPage, jsonLd } from './html.ts';
import { atMost, original } from './pictures.ts';

const PREVIEW_PX = 560;

/** A public archive: pages only, each plate with data for machines and a rights statement. */
export function wayside(): Router {
  const router = Router();

  router.get(['/', '/find'], (request, response) => {
    const asked = typeof request.query.words === 'string' ? request.query.words : '';
    const found = WAYSIDE.filter((plate) => answersWords(`${plate.title} ${plate.caption}`, asked));
    const items = found.map(
      (plate) =>
        `<li><a href="/plates/${plate.number}"><img src="/small/${plate.number}.jpg" width="112" height="82" alt=""> ${escapeHtml(plate.title)}</a></li>`,
    );
    response
      .type('html')
      .send(
        htmlPage(
          'Wayside Archive',
          `<form action="/find"><input name="words" value="${escapeHtml(asked)}" aria-label="Words"><button>Find</button></form><p>${found.length} plates</p><ul class="plates">${items.join('')}</ul>`,
        ),
      );
  });

  router.get('/plates/:number', async (request, response) => {
    const plate = byNumber(request.params.number);
    if (!plate) {
      response.status(404).type('html').send(htmlPage('Not here', '<p>There is no such plate.</p>'));
      return;
    }
    response.type('html').send(await plateHtml(plate, `${request.protocol}://${request.headers.host}`));
  });

  router.get('/small/:file', async (request, response) => {
    const plate = byNumber(request.params.file.replace('.jpg', ''));
    if (plate) response.type('jpeg').send(await atMost(plate, PREVIEW_PX));
    else response.status(404).end();
  });

  router.get('/scans/:file', async (request, response) => {
    const plate = byNumber(request.params.file.replace('.jpg', ''));
    if (plate) response.type('jpeg').send((await original(plate)).bytes);
    else response.status(404).end();
  });
  return router;
}

const byNumber = (number: string) => WAYSIDE.find((plate) => String(plate.number) === number);

async function plateHtml(plate: Plate, here: string): Promise<string> {
  const { width, height } = await original(plate);
  const data = {
    '@context': 'https://schema.org',
    '@type': 'ImageObject',
    contentUrl: `${here}/scans/${plate.number}.jpg`,
    thumbnailUrl: `${here}/small/${plate.number}.jpg`,
    name: plate.title,
    caption: plate.caption,
    identifier: `plate ${plate.number}`,
    license: plate.rights,
    provider: { '@type': 'Organization', name: 'Wayside Archive' },
    width,
    height,
  };
  const also = plate.alsoSays
    ? ` <a rel="license" href="${escapeHtml(plate.alsoSays)}">Terms of the scan</a>`
    : '';
  return htmlPage(
    plate.title,
    `<figure><a href="/scans/${plate.number}.jpg"><img src="/small/${plate.number}.jpg" alt="${escapeHtml(plate.title)}"></a><figcaption>${escapeHtml(plate.caption)} Plate ${plate.number}.${also}</figcaption></figure>`,
    jsonLd(data),
  );
}
