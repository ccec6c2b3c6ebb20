import { type Request, Router } from 'express';
import { escapeHtml, htmlPage } from './html.ts';

const BOARDS: Readonly<Record<string, { readonly title: string; readonly notes: readonly string[] }>> = {
  'reed-days': {
    title: 'Reed-cutting days',
    notes: [
      'Saturday 14th: north bed, twelve cutters, bring waders.',
      'Tea at eleven in the boat shed.',
      'Saturday 21st: south bed, if the water is down.',
      'Gloves and hooks are there.',
    ],
  },
};
const FORMS: Readonly<Record<string, string>> = { 'join-in': 'Join a reed-cutting day' };

/** Boards and forms. Its share page offers three kinds of code, as such services do. */
export function corkline(): Router {
  const router = Router();
  router.get('/b/:id', (request, response) => {
    const board = BOARDS[request.params.id];
    if (!board)
      response.status(404).type('html').send(htmlPage('Not here', '<p>There is no such board.</p>'));
    else
      response
        .type('html')
        .send(
          htmlPage(
            board.title,
            `${notesOf(board.notes)}${share(request, request.params.id)}`,
            discovery(request),
          ),
        );
  });
  router.get('/f/:id', (request, response) => {
    const title = FORMS[request.params.id];
    if (title) response.type('html').send(htmlPage(title, form()));
    else response.status(404).type('html').send(htmlPage('Not here', '<p>There is no such form.</p>'));
  });
  router.get('/b/:id/frame', (request, response) => {
    const board = BOARDS[request.params.id];
    if (board) response.type('html').send(framed(board.title, notesOf(board.notes)));
    else response.status(404).end();
  });
  router.get('/f/:id/frame', (request, response) => {
    const title = FORMS[request.params.id];
    if (title) response.type('html').send(framed(title, form()));
    else response.status(404).end();
  });
  router.get('/oembed', (request, response) => {
    const id = /\/b\/([a-z0-9-]+)/.exec(String(request.query.url ?? ''))?.[1] ?? '';
    const board = BOARDS[id];
    if (!board) {
      response.status(404).end();
      return;
    }
    response.json({
      version: '1.0',
      type: 'rich',
      title: board.title,
      provider_name: 'Corkline',
      width: null,
      height: 520,
      html: `<iframe src="${originOf(request)}/b/${id}/frame" height="520"></iframe>`,
    });
  });
  router.get('/w.js', (request, response) => {
    response
      .type('js')
      .send(
        `for (const one of document.querySelectorAll('.corkline-board')) { const frame = document.createElement('iframe'); frame.src = '${originOf(request)}/b/' + one.dataset.board + '/frame'; one.replaceWith(frame); }`,
      );
  });
  return router;
}

const originOf = (request: Request) => `${request.protocol}://${request.headers.host}`;
const notesOf = (notes: readonly string[]) =>
  `<div class="notes">${notes.map((note) => `<p class="note">${escapeHtml(note)}</p>`).join('')}</div>`;
const form = () =>
  '<form method="post" action="#"><p><label>Name <input name="name"></label></p><p><label>E-mail <input type="email" name="email"></label></p><p><button>Join in</button></p></form>';

function discovery(request: Request): string {
  const address = `${originOf(request)}${request.path}`;
  return `<link rel="alternate" type="application/json+oembed" href="${originOf(request)}/oembed?url=${encodeURIComponent(address)}">`;
}

function share(request: Request, id: string): string {
  const origin = originOf(request);
  const kinds = [
    [
      'Script',
      `<div class="corkline-board" data-board="${id}"></div><script src="${origin}/w.js" async></script>`,
    ],
    ['Frame', `<iframe src="${origin}/b/${id}/frame" width="100%" height="620" frameborder="0"></iframe>`],
    ['Link', `${origin}/b/${id}`],
  ];
  return `<h2>Share</h2>${kinds.map(([name = '', code = '']) => `<h3>${name}</h3><pre style="white-space:pre-wrap">${escapeHtml(code)}</pre>`).join('')}`;
}

/** A frame that tells its height, so that it need not scroll. */
function framed(title: string, body: string): string {
  return `<!DOCTYPE html><html lang="en"><head><meta charset="utf-8"><title>${escapeHtml(title)}</title><style>body{margin:0;padding:18px;font:15px/1.5 Georgia,serif;background:#f4ead9;color:#3b2f22}.notes{display:grid;grid-template-columns:repeat(auto-fill,minmax(210px,1fr));gap:14px}.note{margin:0;padding:14px;background:#fffdf6;border-top:3px solid #b5532d}h1{font-size:20px;margin:0 0 14px}</style></head><body><h1>${escapeHtml(title)}</h1>${body}<script>const tell = () => parent.postMessage({ 'corkline-height': document.body.offsetHeight }, '*'); tell(); addEventListener('resize', tell);</script></body></html>`;
}
