import { type Request, Router } from 'express';
import { escapeHtml, htmlPage } from './html.ts';

interface Chart {
  readonly id: string;
  readonly title: string;
  /** Hours of high water and their height in metres, over two days. */
  readonly highs: readonly (readonly [number, number])[];
  /** Whether it forbids being framed elsewhere. */
  readonly isKept: boolean;
}

const CHARTS: readonly Chart[] = [
  {
    id: 'saltmere-bar',
    title: 'Tides at Saltmere Bar',
    highs: [
      [3.2, 4.1],
      [15.7, 4.4],
      [28.1, 4.3],
      [40.5, 4.6],
    ],
    isKept: false,
  },
  {
    id: 'sluice-live',
    title: 'Water at the sluice, live',
    highs: [
      [4, 2.1],
      [16.5, 2.4],
      [28.9, 2.2],
      [41.3, 2.5],
    ],
    isKept: true,
  },
];

/** Tide charts: frames of some may stand anywhere, those of others only at home. */
export function fathomchart(): Router {
  const router = Router();
  router.get('/', (_request, response) => {
    const items = CHARTS.map(({ id, title }) => `<li><a href="/chart/${id}">${title}</a></li>`);
    response.type('html').send(htmlPage('Fathomchart', `<ul>${items.join('')}</ul>`));
  });
  router.get('/chart/:id', (request, response) => {
    const chart = CHARTS.find(({ id }) => id === request.params.id);
    if (!chart) {
      response.status(404).type('html').send(htmlPage('Not here', '<p>There is no such chart.</p>'));
      return;
    }
    const code = `<iframe src="${originOf(request)}/frame/${chart.id}?tools=1&sid=${chart.id.length}a7f" width="640" height="480" frameborder="0" allow="geolocation; fullscreen" onload="fathom()"></iframe>`;
    response
      .type('html')
      .send(
        htmlPage(
          chart.title,
          `${drawing(chart, false)}<h2>Put on your site</h2><pre style="white-space:pre-wrap">${escapeHtml(code)}</pre>`,
        ),
      );
  });
  router.get('/frame/:id', (request, response) => {
    const chart = CHARTS.find(({ id }) => id === request.params.id);
    if (!chart) {
      response.status(404).end();
      return;
    }
    if (chart.isKept)
      response.set('X-Frame-Options', 'DENY').set('Content-Security-Policy', "frame-ancestors 'none'");
    const isDark = request.query.theme === 'dark';
    const tools = request.query.tools === '1' ? '<p><button>+</button> <button>−</button></p>' : '';
    response
      .type('html')
      .send(
        `<!DOCTYPE html><html lang="en"><head><meta charset="utf-8"><title>${chart.title}</title><style>html,body{margin:0;height:100%;font:14px/1.4 sans-serif;background:${isDark ? '#14232b' : '#eef5f6'};color:${isDark ? '#dfeaee' : '#14313b'}}h1{font-size:16px;margin:0;padding:12px 16px}p{position:absolute;right:14px;top:4px;margin:0}div{position:relative;height:calc(100% - 56px)}svg{position:absolute;inset:0;width:100%;height:100%}span{position:absolute;translate:-50% -100%;white-space:nowrap}</style></head><body><h1>${chart.title}</h1>${tools}${drawing(chart, isDark)}</body></html>`,
      );
  });
  return router;
}

const originOf = (request: Request) => `${request.protocol}://${request.headers.host}`;

function drawing({ highs }: Chart, isDark: boolean): string {
  const heightAt = (hour: number) => {
    const [first] = highs;
    const swing = highs.reduce((sum, [, metres]) => sum + metres, 0) / highs.length;
    return swing / 2 + (swing / 2) * Math.cos(((hour - (first?.[0] ?? 0)) / 12.42) * 2 * Math.PI);
  };
  const points = Array.from(
    { length: 97 },
    (_, at) => `${(at / 96) * 760 + 20},${260 - heightAt(at / 2) * 44}`,
  );
  // Words stand over the drawing, which is stretched to its frame.
  const word = (x: number, y: number, text: string) =>
    `<span style="left:${(x / 8).toFixed(1)}%;top:${(y / 3).toFixed(1)}%">${text}</span>`;
  const words = [
    ...highs.map(([hour, metres]) =>
      word((hour / 48) * 760 + 20, 250 - metres * 44, `${metres.toFixed(1)} m`),
    ),
    ...['Thursday', 'Friday'].map((day, at) => word(210 + at * 380, 290, day)),
  ];
  const ink = isDark ? '#8fd0e0' : '#0f5c6d';
  const line = points.join(' ');
  return `<div style="color:${ink}"><svg viewBox="0 0 800 300" preserveAspectRatio="none"><polygon points="20,262 ${line} 780,262" fill="${ink}" fill-opacity="0.18"/><polyline points="${line}" fill="none" stroke="${ink}" stroke-width="2.5" vector-effect="non-scaling-stroke"/><line x1="20" y1="262" x2="780" y2="262" stroke="${ink}" vector-effect="non-scaling-stroke"/></svg>${words.join('')}</div>`;
}
