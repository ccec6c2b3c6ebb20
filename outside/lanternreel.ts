import express, { type NextFunction, type Request, type Response, Router } from 'express';
import {
  captionsOf,
  FILMS,
  type Film,
  filmById,
  filmFile,
  placeForFilm,
  takeCaptions,
  takeFilm,
} from './films.ts';
import { answersWords, escapeHtml, htmlPage, jsonLd } from './html.ts';
import { atMost } from './pictures.ts';
import { prankPage } from './prank.ts';

const POSTER_PX = 1280;
const LANGUAGES: Readonly<Record<string, string>> = { en: 'English', cy: 'Cymraeg' };

/** A video host: watch pages, players, oEmbed in JSON and XML with discovery links, captions, three visibilities. */
export function lanternreel(): Router {
  const router = Router();

  router.get('/', (_request, response) => {
    const items = listed().map(({ id, title }) => `<li><a href="/watch/${id}">${escapeHtml(title)}</a></li>`);
    response.type('html').send(htmlPage('Lanternreel', `<ul>${items.join('')}</ul>`));
  });

  router.get('/search', (request, response) => {
    const words = String(request.query.q ?? '');
    const found = listed().filter(({ title, about, author }) =>
      answersWords(`${title} ${about} ${author}`, words),
    );
    response.json({
      films: found.map(({ id, title, author, seconds }) => ({
        title,
        author,
        seconds,
        page: `${originOf(request)}/watch/${id}`,
        thumbnail: `${originOf(request)}/posters/${id}.jpg`,
      })),
    });
  });

  router.get(['/watch/:id', '/v/:id'], (request, response) => {
    const film = seen(request, response);
    if (!film) return;
    // Whoever looks at the page is about to look at the film; a stand-in without paintings makes it only when it is asked for.
    if (process.env.OUTSIDE_PICTURES) void filmFile(film).catch(() => undefined);
    response.type('html').send(watchPage(film, originOf(request)));
  });

  router.get('/play/:id', (request, response) => {
    if (request.params.id === 'prank') {
      response.type('html').send(prankPage(originOf(request)));
      return;
    }
    const film = seen(request, response);
    if (film) response.type('html').send(playerPage(film, request.query));
  });

  router.get('/oembed', (request, response) => answerOembed(request, response));

  router.get('/films/:file', async (request, response) => {
    const film = filmById(request.params.file.replace('.webm', ''));
    if (!film || film.visibility === 'private') response.status(404).end();
    else response.sendFile(await filmFile(film));
  });

  router.get('/posters/:file', async (request, response) => {
    const film = filmById(request.params.file.replace('.jpg', ''));
    if (film) response.type('jpeg').send(await atMost(film.still, POSTER_PX));
    else response.status(404).end();
  });

  router.post('/uploads', known, express.json(), (request, response) => {
    const { title, description, visibility } = request.body as Record<string, unknown>;
    const id = placeForFilm(request.get('Idempotency-Key') ?? '', {
      title: String(title),
      about: String(description ?? ''),
      visibility: visibility === 'by-link' || visibility === 'private' ? visibility : 'public',
    });
    const origin = originOf(request);
    response.status(201).json({ page: `${origin}/watch/${id}`, upload: `${origin}/uploads/${id}` });
  });
  router.put('/uploads/:id/file', known, anyBytes, async (request, response) => {
    await takeFilm(String(request.params.id), request.body as Buffer);
    response.status(204).end();
  });
  router.put('/uploads/:id/captions/:language', known, anyBytes, (request, response) => {
    const { id, language } = request.params;
    takeCaptions(String(id), String(language), String(request.body));
    response.status(204).end();
  });

  router.get('/captions/:id/:file', (request, response) => {
    const film = filmById(request.params.id);
    const captions = film && captionsOf(film, request.params.file.replace('.vtt', ''));
    if (captions) response.type('text/vtt').send(captions);
    else response.status(404).end();
  });
  return router;
}

/** What the house is known by here. */
const FILM_TOKEN = 'saltmere-lanternreel';
const anyBytes = express.raw({ type: () => true, limit: '500mb' });

function known(request: Request, response: Response, next: NextFunction): void {
  if (request.get('Authorization') === `Bearer ${FILM_TOKEN}`) next();
  else response.status(401).end();
}

const originOf = (request: Request) => `${request.protocol}://${request.headers.host}`;
const listed = () => FILMS.filter(({ visibility }) => visibility === 'public');

/** The film that is asked for, unless it is not to be seen; then that has been answered. */
function seen(request: Request, response: Response): Film | undefined {
  const film = filmById(String(request.params.id));
  if (film && film.visibility !== 'private') return film;
  if (film)
    response
      .status(403)
      .type('html')
      .send(htmlPage('Private', '<p>This film is private. Sign in to see it.</p>'));
  else response.status(404).type('html').send(htmlPage('Not here', '<p>There is no such film.</p>'));
  return undefined;
}

function watchPage(film: Film, origin: string): string {
  const address = `${origin}/watch/${film.id}`;
  const discovery = ['json', 'xml'].map(
    (format) =>
      `<link rel="alternate" type="${format === 'xml' ? 'text/xml' : 'application/json'}+oembed" href="${origin}/oembed?url=${encodeURIComponent(address)}&amp;format=${format}" title="${escapeHtml(film.title)}">`,
  );
  const robots = film.visibility === 'by-link' ? '<meta name="robots" content="noindex">' : '';
  const data = jsonLd({
    '@context': 'https://schema.org',
    '@type': 'VideoObject',
    name: film.title,
    description: film.about,
    duration: `PT${film.seconds}S`,
    thumbnailUrl: `${origin}/posters/${film.id}.jpg`,
    author: { '@type': 'Organization', name: film.author },
    caption: Object.keys(film.captions).map((language) => ({
      '@type': 'MediaObject',
      inLanguage: language,
      encodingFormat: 'text/vtt',
      contentUrl: `${origin}/captions/${film.id}/${language}.vtt`,
    })),
  });
  const code = `<iframe width="560" height="315" src="${origin}/play/${film.id}?trk=share_page" title="${film.title}" frameborder="0" allow="autoplay; fullscreen; clipboard-write; picture-in-picture" allowfullscreen></iframe>`;
  return htmlPage(
    film.title,
    `<p>${escapeHtml(film.about)}</p><iframe width="800" height="450" src="/play/${film.id}" style="border:0" allow="fullscreen"></iframe><p>${escapeHtml(film.author)}</p><h2>Share</h2><pre style="white-space:pre-wrap">${escapeHtml(code)}</pre>`,
    discovery.join('') + robots + data,
  );
}

function playerPage(film: Film, query: Request['query']): string {
  const start = Math.max(0, Math.min(film.seconds, Number(query.start ?? 0) || 0));
  const tracks = Object.keys(film.captions).map(
    (language, at) =>
      `<track kind="captions" srclang="${language}" label="${LANGUAGES[language] ?? language}" src="/captions/${film.id}/${language}.vtt"${query.cc === '1' && at === 0 ? ' default' : ''}>`,
  );
  const more =
    query.more === '0'
      ? ''
      : `<ul id="more">${listed()
          .filter(({ id }) => id !== film.id)
          .slice(0, 3)
          .map(({ id, title }) => `<li><a href="/play/${id}">${escapeHtml(title)}</a></li>`)
          .join('')}</ul>`;
  const head =
    query.chrome === 'less' ? '' : `<header>${escapeHtml(film.title)} <small>at Lanternreel</small></header>`;
  return `<!DOCTYPE html><html lang="en"><head><meta charset="utf-8"><title>${escapeHtml(film.title)}</title>
<style>html,body{margin:0;height:100%;background:#10171a;color:#fff;font:15px/1.4 sans-serif;overflow:hidden}video{width:100%;height:100%;object-fit:contain;display:block}header{position:absolute;left:0;right:0;top:0;padding:10px 14px;background:#10171acc;z-index:1}#more{position:absolute;right:10px;bottom:64px;margin:0;padding:10px 14px 10px 28px;background:#10171acc}#more a{color:#fff}body:not(.ended) #more{display:none}</style></head>
<body>${head}<video controls playsinline preload="metadata" poster="/posters/${film.id}.jpg" src="/films/${film.id}.webm#t=${start}"${query.autoplay === '1' ? ' autoplay' : ''}>${tracks.join('')}</video>${more}
<script>document.querySelector('video').addEventListener('ended', () => document.body.classList.add('ended'));</script></body></html>`;
}

/** oEmbed 1.0, 2.3: 401 for what is private, 404 for what is not there, 501 for a format that is not spoken. */
function answerOembed(request: Request, response: Response): void {
  const format = String(request.query.format ?? 'json');
  if (format !== 'json' && format !== 'xml') {
    response.status(501).end();
    return;
  }
  const asked = String(request.query.url ?? '');
  const film = filmById(/\/(?:watch|v|play)\/([a-z0-9-]+)/.exec(asked)?.[1]);
  if (!film || film.visibility === 'private') {
    response.status(film ? 401 : 404).end();
    return;
  }
  const origin = originOf(request);
  const answer = asked.includes('lying') ? lie(film) : oembedOf(film, origin);
  if (format === 'json') response.json(answer);
  else response.type('text/xml').send(asXml(answer));
}

function oembedOf(film: Film, origin: string) {
  return {
    version: '1.0',
    type: 'video',
    title: film.title,
    author_name: film.author,
    provider_name: 'Lanternreel',
    width: 1280,
    height: 720,
    duration: film.seconds,
    thumbnail_url: `${origin}/posters/${film.id}.jpg`,
    thumbnail_width: POSTER_PX,
    thumbnail_height: 720,
    html: `<iframe width="1280" height="720" src="${origin}/play/${film.id}" allow="autoplay; fullscreen" allowfullscreen></iframe>`,
  };
}

/** An answer that is not to be believed: another film's name, absurd sizes, code that runs. */
function lie(film: Film) {
  return {
    version: '1.0',
    type: 'video',
    title: `<script>top.__ran = 1</script>${film.title}`,
    author_name: '"><img src=x onerror="top.__ran=1">',
    width: -1,
    height: 1e12,
    duration: 'long',
    thumbnail_url: 'javascript:top.__ran=1',
    html: '<script>top.__ran = 1</script><iframe src="https://elsewhere.example/" onload="top.__ran=1"></iframe>',
  };
}

function asXml(answer: Readonly<Record<string, unknown>>): string {
  const fields = Object.entries(answer).map(
    ([name, value]) => `<${name}>${escapeHtml(String(value))}</${name}>`,
  );
  return `<?xml version="1.0" encoding="utf-8" standalone="yes"?>\n<oembed>${fields.join('')}</oembed>`;
}
