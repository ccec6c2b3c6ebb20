import { type Request, Router } from 'express';
import { escapeHtml, htmlPage } from './html.ts';

const POSTS: Readonly<Record<string, { readonly by: string; readonly words: string; readonly day: string }>> =
  {
    'first-boom': {
      by: 'Saltmere Marsh Reserve',
      words: 'Heard at 5.41 this morning from the north bed: the first boom of the year. Bring a flask.',
      day: '12 March',
    },
    'boardwalk-open': {
      by: 'Saltmere Marsh Reserve',
      words: 'The boardwalk is open again, all the way to the second hide.',
      day: '2 April',
    },
  };

/** A feed of short posts, which only comes as a script: it reads cookies and writes into the page it is put in. */
export function murmurline(): Router {
  const router = Router();
  router.get('/m/:id', (request, response) => {
    const post = POSTS[request.params.id];
    if (!post) {
      response.status(404).type('html').send(htmlPage('Not here', '<p>There is no such post.</p>'));
      return;
    }
    const address = `${originOf(request)}/m/${request.params.id}`;
    const code = `<blockquote class="murmur" cite="${address}"><p>${post.words}</p><a href="${address}">${post.day}</a></blockquote><script async src="${originOf(request)}/w.js" charset="utf-8"></script>`;
    response
      .type('html')
      .send(
        htmlPage(
          `${post.by}, ${post.day}`,
          `<p>${escapeHtml(post.words)}</p><h2>Embed</h2><pre style="white-space:pre-wrap">${escapeHtml(code)}</pre>`,
        ),
      );
  });
  router.get('/api/:id', (request, response) => {
    const post = POSTS[request.params.id];
    response.set('Access-Control-Allow-Origin', '*');
    if (post) response.json(post);
    else response.status(404).json({ error: 'There is no such post.' });
  });
  router.get('/w.js', (request, response) => {
    response.type('js').send(`(() => {
  let cookies = ''; try { cookies = document.cookie; } catch {}
  try { document.cookie = 'murmur=' + Date.now(); } catch {}
  for (const quote of document.querySelectorAll('blockquote.murmur')) {
    fetch('${originOf(request)}/api/' + quote.cite.split('/').pop()).then((answer) => answer.json()).then((post) => {
      const card = document.createElement('article');
      card.style.cssText = 'font:16px/1.5 sans-serif;border:1px solid #9db4bb;padding:18px 20px;background:#fff;color:#17303a';
      card.innerHTML = '<b></b><p style="margin:8px 0"></p><small></small>';
      card.querySelector('b').textContent = post.by; card.querySelector('p').textContent = post.words; card.querySelector('small').textContent = post.day + (cookies ? ' (knows you)' : '');
      quote.replaceWith(card);
    });
  }
  window.__ran = 1;
})();`);
  });
  return router;
}

const originOf = (request: Request) => `${request.protocol}://${request.headers.host}`;
