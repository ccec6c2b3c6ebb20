import { LABEL_FACES } from '../page/faces.ts';
import { HEIGHT_LIMITS } from './limits.ts';

/**
 * What a page with embeds carries besides its HTML: the small script that puts a frame in the place of its poster when
 * it is clicked, and hears the height that a frame tells, from that frame alone.
 */
export const EMBED_SCRIPT = `addEventListener('message', (event) => {
  for (const frame of document.querySelectorAll('iframe[data-height]')) {
    if (frame.contentWindow !== event.source || event.data === null || typeof event.data !== 'object') continue;
    const height = Math.round(Number(event.data[frame.dataset.height]));
    if (height >= ${HEIGHT_LIMITS.least} && height <= ${HEIGHT_LIMITS.most}) frame.style.height = height + 'px';
  }
});
const makeButtons = () => {
  for (const box of document.querySelectorAll('.embed-click')) {
    const link = box.querySelector('a');
    const template = box.querySelector('template');
    if (!link || !template) continue;
    const button = document.createElement('button');
    button.type = 'button';
    button.append(...link.childNodes);
    link.replaceWith(button);
    button.addEventListener('click', () => {
      button.replaceWith(template.content.cloneNode(true));
      box.querySelector('iframe').focus();
    });
  }
};
if (document.readyState === 'loading') addEventListener('DOMContentLoaded', makeButtons);
else makeButtons();
`;

/** How embeds look on a page: nothing jumps, whatever is loaded when. */
export const EMBED_STYLE = `
.embed-click { position: relative; width: 100%; overflow: hidden; background: #172126; }
.embed-click > a, .embed-click > button { position: absolute; inset: 0; display: block; width: 100%; padding: 0; border: 0; background: none; font: inherit; color: inherit; text-align: left; cursor: pointer; }
.embed-click img { width: 100%; height: 100%; object-fit: cover; display: block; }
.embed-click span, .embed-card span { position: absolute; left: 0; bottom: 0; max-width: 100%; box-sizing: border-box; padding: 10px 16px; background: #172126; color: #ffffff; font: 600 15px/1.4 ${LABEL_FACES}; }
.embed-click a:focus-visible span, .embed-click button:focus-visible span, .embed-click a:hover span, .embed-click button:hover span { text-decoration: underline; }
.embed-click :focus-visible { outline: 3px solid #172126; outline-offset: -3px; }
.embed-click :focus-visible::after { content: ''; position: absolute; inset: 3px; border: 3px solid #ffffff; pointer-events: none; }
.embed-click iframe { position: absolute; inset: 0; width: 100% !important; height: 100% !important; }
@container placard (width < 480px) {
  .embed-click span, .embed-card span { padding: 6px 10px; font-size: 14px; max-width: 80%; display: -webkit-box; -webkit-box-orient: vertical; -webkit-line-clamp: 2; overflow: hidden; }
}
.embed-card { position: relative; display: block; }
.embed-card img { width: 100%; height: auto; display: block; }
`;
