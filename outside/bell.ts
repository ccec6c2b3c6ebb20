import { Router, raw } from 'express';
import { escapeHtml, htmlPage } from './html.ts';

const MOST_KEPT = 200;

interface Heard {
  readonly headers: Readonly<Record<string, string>>;
  readonly body: string;
}

const heard: Heard[] = [];

/** A place of the house’s own that listens to web hooks, and shows what it heard. */
export function bell(): Router {
  const router = Router();
  router.post('/hook', raw({ type: () => true, limit: '100kb' }), (request, response) => {
    const headers = Object.fromEntries(
      Object.entries(request.headers).map(([name, value]) => [name, String(value ?? '')]),
    );
    heard.unshift({ headers, body: Buffer.isBuffer(request.body) ? request.body.toString('utf8') : '' });
    heard.splice(MOST_KEPT);
    response.status(204).end();
  });
  router.get('/', (_request, response) => {
    const rings = heard.map(({ body }) => `<pre style="white-space:pre-wrap">${escapeHtml(body)}</pre>`);
    response.type('html').send(htmlPage('Bell', rings.join('<hr>') || '<p>It has not rung yet.</p>'));
  });
  router.get('/heard.json', (_request, response) => {
    response.json(heard);
  });
  return router;
}
