import { type Request, Router } from 'express';
import { COMMONFIELD, type CommonPicture } from './catalogue.ts';
import { answersWords, escapeHtml, htmlPage, jsonLd } from './html.ts';
import { atMost, original } from './pictures.ts';

const PAGE = 8;
const PREVIEW_PX = 640;

/** An open collection: searched by a JSON interface, each picture with a page of its own. */
export function commonfield(): Router {
  const router = Router();

  router.get('/', (_request, response) => {
    const items = COMMONFIELD.map(
      ({ id, title }) => `<li><a href="/pictures/${id}">${escapeHtml(title)}</a></li>`,
    );
    response
      .type('html')
      .send(htmlPage('Commonfield', `<p>Pictures to share.</p><ul>${items.join('')}</ul>`));
  });

  router.get('/api/pictures', async (request, response) => {
    const found = await answering(request);
    const page = Math.max(1, Number(request.query.page) || 1);
    const here = originOf(request);
    response.json({
      count: found.length,
      page,
      pages: Math.ceil(found.length / PAGE),
      pictures: await Promise.all(
        found.slice((page - 1) * PAGE, page * PAGE).map((picture) => presented(picture, here)),
      ),
    });
  });

  router.get('/pictures/:id', async (request, response) => {
    const picture = byId(request.params.id);
    if (!picture) {
      response.status(404).type('html').send(htmlPage('Not here', '<p>There is no such picture.</p>'));
      return;
    }
    response.type('html').send(await pictureHtml(picture, originOf(request)));
  });

  router.get('/files/:file', async (request, response) => {
    const picture = byId(request.params.file.replace(/(-preview)?\.jpg$/, ''));
    if (!picture) {
      response.status(404).end();
      return;
    }
    const isPreview = request.params.file.endsWith('-preview.jpg');
    response
      .type('jpeg')
      .send(isPreview ? await atMost(picture, PREVIEW_PX) : (await original(picture)).bytes);
  });
  return router;
}

const byId = (id: string) => COMMONFIELD.find((picture) => picture.id === id);
const originOf = (request: Request) => `${request.protocol}://${request.headers.host}`;

async function answering({ query }: Request): Promise<readonly CommonPicture[]> {
  const asked = (name: string) => (typeof query[name] === 'string' ? query[name] : '');
  const checks = await Promise.all(
    COMMONFIELD.map(async (picture) => {
      if (!answersWords(`${picture.title} ${picture.maker} ${picture.words}`, asked('words'))) return false;
      const { address } = picture.licence;
      if (asked('commercial') === 'yes' && /-nc/.test(address)) return false;
      if (asked('changes') === 'yes' && /-nd/.test(address)) return false;
      if (asked('licence') !== '' && address !== asked('licence')) return false;
      const { width, height } = await original(picture);
      if (asked('orientation') === 'landscape' && width <= height) return false;
      if (asked('orientation') === 'portrait' && width >= height) return false;
      return width >= (Number(asked('least')) || 0);
    }),
  );
  return COMMONFIELD.filter((_, at) => checks[at]);
}

async function presented(picture: CommonPicture, here: string) {
  const { width, height, bytes } = await original(picture);
  return {
    id: picture.id,
    title: picture.title,
    maker: { name: picture.maker, address: `${here}/makers/${slug(picture.maker)}` },
    licence: picture.licence,
    taken: picture.taken,
    words: picture.words,
    width,
    height,
    bytes: bytes.length,
    preview: `${here}/files/${picture.id}-preview.jpg`,
    file: `${here}/files/${picture.id}.jpg`,
    page: `${here}/pictures/${picture.id}`,
  };
}

async function pictureHtml(picture: CommonPicture, here: string): Promise<string> {
  const { width, height } = await original(picture);
  const licence = picture.pageLicence ?? picture.licence.address;
  const data = {
    '@context': 'https://schema.org',
    '@type': 'ImageObject',
    contentUrl: `${here}/files/${picture.id}.jpg`,
    name: picture.title,
    creator: { '@type': 'Person', name: picture.maker },
    ...(licence ? { license: licence } : {}),
    width,
    height,
  };
  const link = licence
    ? `<a rel="license" href="${escapeHtml(licence)}">Licence</a>`
    : escapeHtml(picture.licence.name);
  return htmlPage(
    picture.title,
    `<figure><img src="/files/${picture.id}-preview.jpg" alt="${escapeHtml(picture.title)}"><figcaption>${escapeHtml(picture.maker)}. ${link}</figcaption></figure>`,
    jsonLd(data),
  );
}

function slug(text: string): string {
  return text.toLowerCase().replace(/[^a-z]+/g, '-');
}
