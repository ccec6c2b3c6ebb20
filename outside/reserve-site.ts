import { randomUUID } from 'node:crypto';
import express, { type Request, Router } from 'express';
import { filterHtml } from './filter.ts';

interface Post {
  readonly title: string;
  readonly html: string;
  readonly photo: { readonly address: string; readonly alt: string } | null;
}

const TOKEN = 'saltmere-reserve-site';
const LIMIT = '60mb';

/**
 * The Reserve site as its readers know it: a listing with teasers, and articles. Pages come by Micropub (W3C
 * Recommendation, 2017) with its media endpoint, and are filtered as this site filters.
 */
export function reserveSite(): Router {
  const router = Router();
  const posts = new Map<string, Post>();
  const media = new Map<string, { readonly type: string; readonly bytes: Buffer }>();
  const moved = new Map<string, string>();
  const here = (request: Request) => `http://${request.headers.host}`;

  router.get('/', (_request, response) => {
    const items = [...posts].map(
      ([slug, { title, photo }]) =>
        `<li>${photo ? `<img src="${escapeText(photo.address)}" alt="${escapeText(photo.alt)}" width="180">` : ''}<a href="/pages/${slug}">${escapeText(title)}</a></li>`,
    );
    response
      .type('html')
      .send(
        page(
          'Saltmere Marsh Reserve',
          `<h1>Saltmere Marsh Reserve</h1><p>A tidal marsh with hides, a boardwalk and an eel pass.</p><ul>${items.join('')}</ul>`,
        ),
      );
  });
  router.get('/pages/:slug', (request, response) => {
    const post = posts.get(request.params.slug);
    if (!post) response.status(404).type('html').send(page('Not here', '<p>There is no such page.</p>'));
    else
      response
        .type('html')
        .send(
          page(
            post.title,
            `${post.photo ? `<img src="${escapeText(post.photo.address)}" alt="${escapeText(post.photo.alt)}">` : ''}${post.html}`,
          ),
        );
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
    if (request.headers.authorization === `Bearer ${TOKEN}`) next();
    else response.status(401).json({ error: 'unauthorized' });
  });
  router.get('/micropub', (request, response) => {
    response.json(request.query.q === 'config' ? { 'media-endpoint': `${here(request)}/media` } : {});
  });
  router.post('/micropub', express.json({ limit: LIMIT }), (request, response) => {
    const post = readEntry(request.body);
    if (!post) {
      response
        .status(400)
        .json({ error: 'invalid_request', error_description: 'An h-entry has a name and content.' });
      return;
    }
    const slug =
      post.title
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, '-')
        .replace(/^-|-$/g, '') || randomUUID();
    posts.set(slug, { ...post, html: filterHtml(post.html) });
    response
      .status(201)
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

/** An h-entry in Micropub's JSON syntax, or undefined for anything else. */
function readEntry(body: unknown): Post | undefined {
  const properties = part(body, 'properties');
  const title = first(properties, 'name');
  const html = part(first(properties, 'content'), 'html');
  if (typeof title !== 'string' || typeof html !== 'string') return undefined;
  const photo = first(properties, 'photo');
  const address = typeof photo === 'string' ? photo : part(photo, 'value');
  const alt = part(photo, 'alt');
  return {
    title,
    html,
    photo: typeof address === 'string' ? { address, alt: typeof alt === 'string' ? alt : '' } : null,
  };
}

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
