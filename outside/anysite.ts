import { gzipSync } from 'node:zlib';
import { Router } from 'express';
import sharp from 'sharp';
import { htmlPage, jsonLd } from './html.ts';

const PICTURES = {
  plain: { width: 1600, height: 1000, colour: '#6f8f7a', border: 0 },
  bordered: { width: 1200, height: 800, colour: '#8a7a5c', border: 40 },
  small: { width: 240, height: 160, colour: '#5c748a', border: 0 },
  enlarged: { width: 1800, height: 1200, colour: '#74806a', border: 0 },
  compressed: { width: 1400, height: 900, colour: '#5f7d86', border: 0 },
} as const;

type PictureName = keyof typeof PICTURES;

const CC = 'https://creativecommons.org/licenses';

/** Any page on the web: pictures in several conditions, and pages that show them. */
export function anysite(): Router {
  const router = Router();
  router.get('/', (_request, response) => {
    const names = [...Object.keys(PICTURES), ...Object.keys(PAGES), 'late', 'many', 'guarded'];
    const items = names.map((name) => `<li><a href="/page/${name}">${name}</a></li>`);
    response.type('html').send(htmlPage('Anysite', `<ul>${items.join('')}</ul>`));
  });
  router.get('/page/many', (_request, response) => {
    const images = Array.from(
      { length: MANY },
      (_, at) => `<img src="/picture/plain.jpg?${at}" width="${200 + at}" height="150" alt="Picture ${at}">`,
    );
    response.type('html').send(htmlPage('Two thousand pictures', images.join('\n')));
  });
  router.get('/page/late', async (_request, response) => {
    response.type('html').send(await latePage());
  });
  router.get('/page/guarded', (_request, response) => {
    response
      .type('html')
      .send(
        htmlPage('A guarded picture', '<img src="/guarded/plain.jpg" width="1600" height="1000" alt="">'),
      );
  });
  // A recording with a player of its own, which only oEmbed names: found by the link in its page, as on any site.
  router.get('/recording', (request, response) => {
    const here = `http://${request.headers.host}`;
    const link = `<link rel="alternate" type="application/json+oembed" href="${here}/oembed?url=${encodeURIComponent(`${here}/recording`)}">`;
    response.type('html').send(htmlPage('Dawn in the reeds', '<p>Listen to the marsh wake.</p>', link));
  });
  router.get('/oembed', (request, response) => {
    const here = `http://${request.headers.host}`;
    response.json({
      version: '1.0',
      type: 'rich',
      title: 'Dawn in the reeds',
      html: `<iframe src="${here}/recording/player" width="600" height="150"></iframe>`,
    });
  });
  router.get('/recording/player', (_request, response) => {
    response.type('html').send(htmlPage('Dawn in the reeds', '<p>0:00 / 4:12</p>'));
  });
  router.get('/page/:name', (request, response) => {
    const { name } = request.params;
    const made = Object.entries(PAGES).find(([known]) => known === name)?.[1];
    if (made) response.type('html').send(made);
    else if (isPicture(name)) response.type('html').send(figurePage(name));
    else response.status(404).type('html').send(htmlPage('Not here', '<p>There is no such page.</p>'));
  });
  router.get('/picture/:file', async (request, response) => {
    const name = request.params.file.replace(/\.jpg$/, '');
    if (!isPicture(name)) {
      response.status(404).end();
      return;
    }
    response.type('image/jpeg').send(await paint(name));
  });
  // Refused to pages of other sites, moved, a page under a picture's name, a picture under a page's type.
  router.get('/guarded/plain.jpg', async (request, response) => {
    if (request.headers.referer?.startsWith(`http://${request.headers.host}/`))
      response.type('image/jpeg').send(await paint('plain'));
    else response.status(403).type('text').send('Pictures are not shown on other sites.');
  });
  router.get('/moved/plain.jpg', (_request, response) => response.redirect('/picture/plain.jpg'));
  router.get('/lying/plain.jpg', (_request, response) => {
    response.type('image/jpeg').send(htmlPage('Not a picture', '<p>This is a page.</p>'));
  });
  router.get('/modest/plain', async (_request, response) => {
    response.type('html').send(await paint('plain'));
  });
  // Far too large, packed small and huge unpacked, never ending, and sending on to a private place.
  router.get('/huge/plain.jpg', async (_request, response) => {
    response
      .type('image/jpeg')
      .set('Content-Length', String(HUGE_BYTES))
      .write(await paint('plain'));
    const part = Buffer.alloc(HUGE_PART_BYTES);
    const timer = setInterval(() => response.write(part), 20);
    response.on('close', () => clearInterval(timer));
  });
  router.get('/bomb', (_request, response) => {
    response.set({ 'Content-Type': 'text/html', 'Content-Encoding': 'gzip' }).send(bomb());
  });
  router.get('/endless', (_request, response) => {
    response.type('html').write('<p>');
    const timer = setInterval(() => response.write('and on '), 50);
    response.on('close', () => clearInterval(timer));
  });
  router.get('/to-private', (request, response) => {
    const to = typeof request.query.to === 'string' ? request.query.to : 'http://169.254.169.254/latest/';
    response.redirect(to);
  });
  return router;
}

const MANY = 2000;
const HUGE_BYTES = 2_000_000_000;
const HUGE_PART_BYTES = 1_000_000;
const BOMB_BYTES = 60_000_000;

let packed: Buffer | undefined;
function bomb(): Buffer {
  packed ??= gzipSync(Buffer.concat([Buffer.from('<!DOCTYPE html><p>'), Buffer.alloc(BOMB_BYTES, 32)]));
  return packed;
}

const figure = (name: PictureName, caption: string, licence = '') => {
  const { width, height } = PICTURES[name];
  const link = licence ? ` <a rel="license" href="${licence}">Licence</a>` : '';
  return `<figure><img src="/picture/${name}.jpg" width="${width}" height="${height}" alt="A ${name} picture"><figcaption>${caption}${link}</figcaption></figure>`;
};

function figurePage(name: PictureName): string {
  return htmlPage(`The ${name} picture`, figure(name, 'Shown here by a passer-by.'));
}

const object = (more: object) => ({
  '@context': 'https://schema.org',
  '@type': 'ImageObject',
  contentUrl: '/picture/plain.jpg',
  name: 'Morning on the flats',
  creator: { '@type': 'Person', name: 'Osric Penhale', url: 'https://penhale.example/' },
  ...more,
});

/** Pages that say much, nothing that can be read, or one thing here and another there. */
const PAGES: Readonly<Record<string, string>> = {
  article: htmlPage(
    'A day on the flats',
    `<p>We went out at six.</p>${figure('plain', 'The flats at six in the morning. Photo: Osric Penhale.', `${CC}/by/4.0/`)}<p>Later it rained.</p>${figure('small', 'A small one.')}<img src="/mark.png" width="16" height="16" alt="">`,
    `${jsonLd(object({ license: `${CC}/by/4.0/`, copyrightNotice: '© Osric Penhale', dateCreated: '2025-05-04' }))}<meta property="og:image" content="/picture/plain.jpg"><meta property="og:title" content="A day on the flats"><meta property="og:site_name" content="Anysite">`,
  ),
  malformed: htmlPage(
    'Data that cannot be read',
    figure('plain', 'It still has a caption.'),
    '<script type="application/ld+json">{"@type": "ImageObject", "contentUrl": </script><script type="application/ld+json">[[[[{"@type":["ImageObject",7],"contentUrl":9,"license":{}}]]]]</script>',
  ),
  contradicting: htmlPage(
    'Licensed twice',
    figure('plain', 'One of us is wrong.', `${CC}/by-nc/4.0/`),
    jsonLd(object({ license: `${CC}/by/4.0/` })),
  ),
};

const PLACE = "data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 16 10'%3E%3C/svg%3E";

/** A page whose pictures a script loads, with one written into it, one that a link opens, and furniture about them. */
async function latePage(): Promise<string> {
  const late = (name: PictureName, alt: string) =>
    `<figure><img class="lazy" src="${PLACE}" data-src="/picture/${name}.jpg" width="800" height="500" alt="${alt}"><noscript><img src="/picture/${name}.jpg" alt="${alt}"></noscript><figcaption>${alt}, <em>April</em>.</figcaption></figure>`;
  const written = await sharp(await paint('small'))
    .resize(120, 80)
    .png()
    .toBuffer();
  return htmlPage(
    'A week on the flats',
    `<header><a href="/"><img src="/mark.png" alt="Anysite"></a></header><img src="/gfx/spacer.gif" width="400" height="1" alt="">
${late('plain', 'The flats at low water')}${late('compressed', 'The same at noon')}
<p><a href="/picture/enlarged.jpg"><img src="/picture/small.jpg" width="240" height="160" alt="The way out"></a></p>
<p><a href="/lying/plain.jpg"><img src="/picture/bordered.jpg" alt="A card of before"></a></p>
<p><img src="data:image/png;base64,${written.toString('base64')}" alt="A sketch of the pool"></p>
<footer><img src="/gfx/arrow-up.png" alt=""> <a rel="license" href="${CC}/by/4.0/">Our words are free.</a></footer>`,
  );
}

function isPicture(name: string): name is PictureName {
  return Object.hasOwn(PICTURES, name);
}

const painted = new Map<PictureName, Promise<Buffer>>();

function paint(name: PictureName): Promise<Buffer> {
  const known = painted.get(name) ?? paintOnce(name);
  painted.set(name, known);
  return known;
}

async function paintOnce(name: PictureName): Promise<Buffer> {
  const { width, height, border } = PICTURES[name];
  // What was blown up before holds only the detail of a fifth of its size.
  const share = name === 'enlarged' ? 0.2 : 1;
  const [w, h] = [Math.round((width - 2 * border) * share), Math.round((height - 2 * border) * share)];
  const image = await grained(name, w, h);
  if (share < 1) return image.resize(width, height, { fit: 'fill' }).jpeg({ quality: 90 }).toBuffer();
  return image
    .extend({ top: border, bottom: border, left: border, right: border, background: '#f2efe6' })
    .jpeg({ quality: name === 'compressed' ? 14 : 86 })
    .toBuffer();
}

/** Hills under a sun, with the grain of a photograph. */
async function grained(name: PictureName, w: number, h: number) {
  const hills = `<svg xmlns="http://www.w3.org/2000/svg" width="${w}" height="${h}"><rect width="100%" height="100%" fill="${PICTURES[name].colour}"/><path d="M0 ${h * 0.62} C ${w * 0.3} ${h * 0.4}, ${w * 0.6} ${h * 0.8}, ${w} ${h * 0.5} V ${h} H 0 Z" fill="#00000044"/><circle cx="${w * 0.7}" cy="${h * 0.28}" r="${h * 0.09}" fill="#ffffffaa"/></svg>`;
  const grain = await sharp({
    create: {
      width: w,
      height: h,
      channels: 3,
      background: '#808080',
      noise: { type: 'gaussian', mean: 128, sigma: 18 },
    },
  })
    .png({ compressionLevel: 1 })
    .toBuffer();
  const painted = await sharp(Buffer.from(hills))
    .flatten()
    .composite([{ input: grain, blend: 'soft-light' }])
    .png({ compressionLevel: 1 })
    .toBuffer();
  return sharp(painted);
}
