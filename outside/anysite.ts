import { Router } from 'express';
import sharp from 'sharp';

const PICTURES = {
  plain: { width: 1600, height: 1000, colour: '#6f8f7a', border: 0 },
  bordered: { width: 1200, height: 800, colour: '#8a7a5c', border: 40 },
  small: { width: 240, height: 160, colour: '#5c748a', border: 0 },
} as const;

type PictureName = keyof typeof PICTURES;

/** Any page on the web: pictures in several conditions, and the page that shows them. */
export function anysite(): Router {
  const router = Router();
  router.get('/', (_request, response) => {
    const items = Object.keys(PICTURES).map((name) => `<li><a href="/page/${name}">${name}</a></li>`);
    response.type('html').send(page('Anysite', `<ul>${items.join('')}</ul>`));
  });
  router.get('/page/:name', (request, response) => {
    const { name } = request.params;
    if (!isPicture(name)) {
      response.status(404).type('html').send(page('Not here', '<p>There is no such page.</p>'));
      return;
    }
    const { width, height } = PICTURES[name];
    response
      .type('html')
      .send(
        page(
          `The ${name} picture`,
          `<figure><img src="/picture/${name}.jpg" width="${width}" height="${height}" alt="A ${name} picture"><figcaption>Shown here by a passer-by.</figcaption></figure>`,
        ),
      );
  });
  router.get('/picture/:file', async (request, response) => {
    const name = request.params.file.replace(/\.jpg$/, '');
    if (!isPicture(name)) {
      response.status(404).end();
      return;
    }
    response.type('image/jpeg').send(await paint(name));
  });
  // Refused to pages of other sites, moved, a page under a picture's name, and far too large.
  router.get('/guarded/plain.jpg', async (request, response) => {
    if (request.headers.referer?.startsWith(`http://${request.headers.host}/`))
      response.type('image/jpeg').send(await paint('plain'));
    else response.status(403).type('text').send('Pictures are not shown on other sites.');
  });
  router.get('/moved/plain.jpg', (_request, response) => response.redirect('/picture/plain.jpg'));
  router.get('/lying/plain.jpg', (_request, response) => {
    response.type('image/jpeg').send(page('Not a picture', '<p>This is a page.</p>'));
  });
  router.get('/huge/plain.jpg', async (_request, response) => {
    response
      .type('image/jpeg')
      .set('Content-Length', String(HUGE_BYTES))
      .write(await paint('plain'));
    const part = Buffer.alloc(HUGE_PART_BYTES);
    const timer = setInterval(() => response.write(part), 20);
    response.on('close', () => clearInterval(timer));
  });
  return router;
}

const HUGE_BYTES = 2_000_000_000;
const HUGE_PART_BYTES = 1_000_000;

function isPicture(name: string): name is PictureName {
  return Object.hasOwn(PICTURES, name);
}

function paint(name: PictureName): Promise<Buffer> {
  const { width, height, colour, border } = PICTURES[name];
  const inner = { width: width - 2 * border, height: height - 2 * border };
  return sharp({ create: { ...inner, channels: 3, background: colour } })
    .extend({ top: border, bottom: border, left: border, right: border, background: '#f2efe6' })
    .jpeg()
    .toBuffer();
}

function page(title: string, body: string): string {
  return `<!DOCTYPE html><html lang="en"><head><meta charset="utf-8"><title>${title}</title></head><body><h1>${title}</h1>${body}</body></html>`;
}
