import { randomUUID } from 'node:crypto';
import express, { type Request, Router } from 'express';
import { BULLETIN_FILTER, type Filter, filterHtml, RESERVE_FILTER } from './filter.ts';
import { oldSection } from './old-site.ts';

interface Post {
  /** Names the page wherever it is sent. */
  readonly uid: string;
  readonly title: string;
  readonly summary: string;
  readonly html: string;
  readonly photo: { readonly address: string; readonly alt: string } | null;
}

interface Site {
  readonly name: string;
  readonly about: string;
  readonly token: string;
  readonly filter: Filter;
}

const LIMIT = '60mb';
/** How much of what a page says of itself a listing shows. */
const LISTED_LETTERS = 155;

/** The site of today, with the section from before that nobody has taken over yet. */
export const reserveSite = () => Router().use('/old', oldSection()).use(today());

const today = () =>
  site({
    name: 'Saltmere Marsh Reserve',
    about: 'A tidal marsh with hides, a boardwalk and an eel pass.',
    token: 'saltmere-reserve-site',
    filter: RESERVE_FILTER,
  });

export const bulletinSite = () =>
  site({
    name: 'Members’ bulletin',
    about: 'What the members of the reserve read each month.',
    token: 'saltmere-bulletin',
    filter: BULLETIN_FILTER,
  });

/**
 * A site as its readers know it: a listing with teasers, and articles. Pages come by Micropub (W3C Recommendation, 2017) with its
 * media endpoint, and are filtered as this site filters.
 */
function site({ name, about, token, filter }: Site): Router {
  const router = Router();
  const posts = new Map<string, Post>();
  const media = new Map<string, { readonly type: string; readonly bytes: Buffer }>();
  const moved = new Map<string, string>();
  const here = (request: Request) => `http://${request.headers.host}`;
  const endpoint = (request: Request) => `<${here(request)}/micropub>; rel="micropub"`;

  router.get('/', (request, response) => {
    const items = [...posts].map(
      ([slug, { title, summary, photo }]) =>
        `<li>${photo ? `<img src="${escapeText(photo.address)}" alt="${escapeText(photo.alt)}" width="180">` : ''}<a href="/pages/${slug}">${escapeText(title)}</a>${summary ? `<p>${escapeText(cut(summary))}</p>` : ''}</li>`,
    );
    response
      .type('html')
      .set('Link', endpoint(request))
      .send(page(name, `<h1>${escapeText(name)}</h1><p>${escapeText(about)}</p><ul>${items.join('')}</ul>`));
  });
  router.get('/pages/:slug', (request, response) => {
    const post = posts.get(request.params.slug);
    if (!post) response.status(404).type('html').send(page('Not here', '<p>There is no such page.</p>'));
    else
      response
        .type('html')
        .send(page(`${post.title} - ${name}`, `<h1>${escapeText(post.title)}</h1>${post.html}`));
  });
  router.use((request, response, next) => {
    const to = moved.get(request.path);
    if (to) response.redirect(301, to);
    else next();
  });
  router.get('/media/:id', (request, response) => {
    const file = media.get(request.params.id);
    if (file) response.type(file.type).send(file.bytes);
    else response.status(404).end();
  });

  router.use(['/micropub', '/media', '/redirects'], (request, response, next) => {
    if (request.headers.authorization === `Bearer ${token}`) next();
    else response.status(401).json({ error: 'unauthorized' });
  });
  router.get('/micropub', (request, response) => {
    const items = [...posts].map(([slug, { uid, title }]) => ({
      type: ['h-entry'],
      properties: { uid: [uid], url: [`${here(request)}/pages/${slug}`], name: [title] },
    }));
    if (request.query.q === 'config') response.json({ 'media-endpoint': `${here(request)}/media` });
    else response.json(request.query.q === 'source' ? { items: items.reverse() } : {});
  });
  router.post('/micropub', express.json({ limit: LIMIT }), (request, response) => {
    const action = part(request.body, 'action');
    const known = slugOf(part(request.body, 'url'));
    if (action !== undefined && (known === null || !posts.has(known))) {
      response.status(404).json({ error: 'not_found', error_description: 'There is no such page.' });
      return;
    }
    if (action === 'delete' && known !== null) {
      posts.delete(known);
      response.status(204).end();
      return;
    }
    const post = readEntry(part(request.body, action === 'update' ? 'replace' : 'properties'));
    if (!post) {
      response
        .status(400)
        .json({ error: 'invalid_request', error_description: 'An h-entry has a name and content.' });
      return;
    }
    const slug = known ?? freeSlug(post.title, posts);
    posts.set(slug, { ...post, html: filterHtml(post.html, filter) });
    response
      .status(known === null ? 201 : 200)
      .location(`${here(request)}/pages/${slug}`)
      .end();
  });
  /** A list of what moved where, as it lies in a bundle: this site answers for the old addresses from then on. */
  router.post('/redirects', express.json({ limit: LIMIT }), (request, response) => {
    const list: unknown[] = Array.isArray(request.body) ? request.body : [];
    for (const one of list) {
      const [from, to] = [part(one, 'from'), part(one, 'to')];
      if (typeof from === 'string' && typeof to === 'string') moved.set(`/${from}`, `/${to}`);
    }
    response.status(204).end();
  });
  router.post('/media', express.raw({ type: () => true, limit: LIMIT }), async (request, response) => {
    const form = await new Response(request.body, {
      headers: { 'content-type': request.headers['content-type'] ?? '' },
    })
      .formData()
      .catch(() => null);
    const file = form?.get('file');
    if (!(file instanceof Blob)) {
      response.status(400).json({
        error: 'invalid_request',
        error_description: 'The media endpoint takes one file called "file".',
      });
      return;
    }
    const id = randomUUID();
    media.set(id, { type: file.type, bytes: Buffer.from(await file.arrayBuffer()) });
    response
      .status(201)
      .location(`${here(request)}/media/${id}`)
      .end();
  });
  return router;
}

/** The properties of an h-entry in Micropub's JSON syntax, or undefined for anything else. */
function readEntry(properties: unknown): Post | undefined {
  const title = first(properties, 'name');
  const html = part(first(properties, 'content'), 'html');
  if (typeof title !== 'string' || typeof html !== 'string') return undefined;
  const [photo, uid, summary] = [
    first(properties, 'photo'),
    first(properties, 'uid'),
    first(properties, 'summary'),
  ];
  const address = typeof photo === 'string' ? photo : part(photo, 'value');
  const alt = part(photo, 'alt');
  return {
    uid: typeof uid === 'string' ? uid : '',
    title,
    summary: typeof summary === 'string' ? summary : '',
    html,
    photo: typeof address === 'string' ? { address, alt: typeof alt === 'string' ? alt : '' } : null,
  };
}

/** The name of a page in its address; two of one title are two pages. */
function freeSlug(title: string, posts: ReadonlyMap<string, Post>): string {
  const slug =
    title
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || randomUUID();
  let free = slug;
  for (let number = 2; posts.has(free); number += 1) free = `${slug}-${number}`;
  return free;
}

const slugOf = (url: unknown): string | null =>
  typeof url === 'string' ? (/\/pages\/([a-z0-9-]+)$/.exec(url)?.[1] ?? null) : null;

const cut = (words: string) =>
  words.length > LISTED_LETTERS ? `${words.slice(0, LISTED_LETTERS)}...` : words;

function part(value: unknown, name: string): unknown {
  return typeof value === 'object' && value !== null ? Reflect.get(value, name) : undefined;
}

function first(value: unknown, name: string): unknown {
  const list = part(value, name);
  return Array.isArray(list) ? list[0] : undefined;
}

function escapeText(text: string): string {
  return text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('"', '&quot;');
}

function page(title: string, body: string): string {
  return `<!DOCTYPE html>
<html lang="en-GB">
<head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>${escapeText(title)}</title>
<style>body { margin: 0; font: 18px/1.5 Georgia, serif; } header { height: 56px; background: #2d4f57; } main { max-width: 720px; margin: 2em auto; padding: 0 20px; } img { max-width: 100%; height: auto; }</style></head>
<body><header></header><main>${body}</main></body>
</html>
`;
}
