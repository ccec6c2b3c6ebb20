import { Router } from 'express';
import sharp from 'sharp';
import type { OutsidePicture } from './catalogue.ts';
import { filmById, filmFile } from './films.ts';
import { atMost, original } from './pictures.ts';

const picture = (
  id: string,
  subject: OutsidePicture['scene']['subject'],
  light: OutsidePicture['scene']['light'],
  seed: number,
  size: { readonly width: number; readonly height: number },
): OutsidePicture => ({ id: `old-${id}`, scene: { subject, light, seed }, ...size });

const WIDE = { width: 2000, height: 1333 };
const TALL = { width: 1200, height: 1800 };

const PASS = picture('pass', 'sluice', 'noon', 3001, WIDE);
const EVENING = picture('evening', 'sluice', 'dusk', 3002, TALL);
const HIDE = picture('hide', 'marsh', 'mist', 3003, WIDE);
const WALK = picture('walk', 'boardwalk', 'dawn', 3004, WIDE);
const HERON = picture('heron', 'heron', 'dawn', 3005, WIDE);

/** What the old section shows, to be painted beforehand. */
export const OLD_PICTURES: readonly OutsidePicture[] = [PASS, EVENING, HIDE, WALK, HERON];

/** Its files, under the names that a camera, a scanner and a hurry gave them. */
const FILES: Readonly<Record<string, OutsidePicture>> = {
  'DSC00471 (1).JPG': PASS,
  'sluice.jpg': EVENING,
  'Hide_by_the_Water.jpeg': HIDE,
  'IMG_2214.jpg': WALK,
  'heron-large.jpg': HERON,
};

/**
 * The Reserve site's section from before: pages that several people made over twenty years, by hand and with whatever program
 * was there, in every condition that such pages are in.
 */
export function oldSection(): Router {
  const router = Router();
  router.get('/images/chart.gif', async (_request, response) => {
    response.type('image/gif').send(await chart());
  });
  router.get('/images/thumbs/:name', async (request, response) => {
    const file = FILES[request.params.name];
    if (file) response.type('image/jpeg').send(await atMost(file, 160));
    else response.status(404).end();
  });
  router.get('/images/:name', async (request, response) => {
    const file = FILES[request.params.name];
    if (file) response.type('image/jpeg').send((await original(file)).bytes);
    else response.status(404).end();
  });
  router.get(['/images/spacer.gif', '/images/ball.gif'], (_request, response) => {
    response.type('image/gif').send(DOT);
  });
  router.get('/films/walk.webm', async (_request, response) => {
    const film = filmById('boardwalk-22');
    if (film) response.sendFile(await filmFile(film));
    else response.status(404).end();
  });
  router.get('/tide.htm', (_request, response) => response.redirect(301, '/old/tides.htm'));
  router.get('/sitemap.xml', (request, response) => {
    const here = `http://${request.headers.host}/old`;
    const all = Object.keys(pagesFor(request.headers.host ?? ''));
    response
      .type('application/xml')
      .send(
        `<?xml version="1.0" encoding="UTF-8"?><urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">${all.map((name) => `<url><loc>${here}/${name}</loc></url>`).join('')}</urlset>`,
      );
  });
  router.get('/old.css', (_request, response) => {
    response.type('css').send(STYLE);
  });
  router.get('/:name', (request, response) => {
    const html = pagesFor(request.headers.host ?? '')[request.params.name];
    if (html === undefined)
      response.status(404).type('html').send('<title>Not here</title><p>There is no such page.</p>');
    // Written in the letters of an old machine, and said nowhere.
    else if (request.params.name === 'hides.htm')
      response.set('Content-Type', 'text/html').send(Buffer.from(html, 'latin1'));
    else response.type('html').send(html);
  });
  return router;
}

const DOT = Buffer.from('R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7', 'base64');

let drawn: Promise<Buffer> | undefined;
function chart(): Promise<Buffer> {
  const counts = [12, 18, 46, 130, 410, 350, 290, 160, 200, 70, 24, 10];
  const bars = counts
    .map(
      (count, at) =>
        `<rect x="${46 + at * 36}" y="${250 - count / 2}" width="26" height="${count / 2}" fill="#0f5c4d"/>`,
    )
    .join('');
  drawn ??= sharp(
    Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="500" height="300"><rect width="500" height="300" fill="#fff"/><text x="46" y="26" font-family="sans-serif" font-size="15" font-weight="700">Eels counted at the pass, by month</text>${bars}<path d="M40 250h440" stroke="#333"/></svg>`,
    ),
  )
    .gif()
    .toBuffer();
  return drawn;
}

const STYLE = `.links{float:left;width:220px;margin-right:12px}.gross{font-size:24px;font-weight:bold}.rechts{float:right;width:260px}.still{background-image:url(images/heron-large.jpg);height:240px}`;

const NAV =
  '<table width="100%" bgcolor="#004040"><tr><td><a href="index.htm"><img src="images/ball.gif" width="12" height="12" border="0" alt=""></a> <a href="/">Home</a> <a href="eels.htm">Eels</a> <a href="gallery.htm">Pictures</a></td></tr></table>';

const shell = (title: string, body: string, head = '') =>
  `<html><head><title>${title}</title>${head}</head><body bgcolor="#ffffff" text="#000000" link="#008080"><div id="nav">${NAV}</div>${body}<div id="footer"><font size="1">&copy; 2004 Saltmere. Best seen at 800 x 600.</font></div></body></html>`;

function pagesFor(host: string): Readonly<Record<string, string>> {
  const films = `http://${host.replace(/^[^.]+/, 'lanternreel')}`;
  return { ...ownPages(films), ...notes() };
}

function ownPages(films: string): Readonly<Record<string, string>> {
  return {
    'eels.htm': shell(
      'Saltmere - Eels',
      `<center><p><font size="6" color="#008080" face="Verdana"><b>The Eel Pass!!</b></font></p></center>
<table border="1" cellpadding="6" width="760" bordercolor="#008080"><tr>
<td width="420"><img src="images/DSC00471 (1).JPG" width="400" height="152"></td>
<td><font color="#800000">Eels cannot jump. What they can do is climb, if there is something wet and rough to climb on. <b><a href="tide.htm">CLICK HERE</a></b> for the tides.</font></td></tr></table>
<p>&nbsp;</p><p>&nbsp;</p>
<p><img src="images/sluice.jpg" width="150" height="170" align="left" alt="sluice.jpg">Built in 2004 by the volunteers. Every spring between two and four hundred come through, mostly at night and mostly in May. The box is emptied each morning and the eels are counted into a bucket.</p>
<p>Ask <a href="warden.htm">the warden</a> when the next count is, or come on any morning in May.<br><br>Bring boots.</p>
<p>&nbsp;</p>
<object classid="clsid:D27CDB6E-AE6D-11cf-96B8-444553540000" width="400" height="300"><param name="movie" value="player.swf"><param name="flashvars" value="file=${encodeURIComponent(`${films}/watch/eel-pass-71`)}&autostart=false"><embed src="player.swf" type="application/x-shockwave-flash" width="400" height="300"></object>
<p><font size="4" color="#008080"><b>What was counted</b></font></p>
<p><img src="images/chart.gif" width="500" height="300"></p>
<p>More in <a href="http://reserve.invalid/reports/2004.htm">the report of 2004</a>. <img src="images/spacer.gif" width="1" height="40"></p>
<p>&nbsp;</p>`,
    ),
    'tides.htm': shell(
      'Saltmere - Tides this week',
      `<h1>Tides this week</h1><table border="1" bgcolor="#eeeeee"><tr><td><b>Day</b></td><td><b>High</b></td><td><b>Metres</b></td></tr><tr><td>Monday</td><td>6:12</td><td>4.1</td></tr><tr><td>Tuesday</td><td>6:58</td><td>4.4</td></tr><tr><td>Wednesday</td><td>7:41</td><td>4.6</td></tr></table><p>Mind the channel: <a href="boardwalk.htm">more</a></p>`,
    ),
    'hides.htm': shell(
      'Saltmere - Hides',
      `<h1>The hides \x96 caf\xe9 and all</h1><p>From the \x93Long Hide\x94 the whole marsh lies open. A gro\xdfe Rohrdommel was seen from it; it costs \xa33 to sit there all day.</p><p align="center"><img src="images/Hide_by_the_Water.jpeg" width="640" height="427" alt="The long hide in the mist, its reflection in still water"><br><small>The long hide, 2009. Photo: I. Okonjo</small></p>`,
    ),
    'gallery.htm': shell(
      'Saltmere - Pictures',
      `<h1>Pictures from the marsh</h1><table><tr>${Object.keys(FILES)
        .map(
          (name) =>
            `<td align="center"><a href="images/${name}"><img src="images/thumbs/${name}" width="160" alt="${name}" border="0"></a></td>`,
        )
        .join(
          '',
        )}</tr></table><p>All pictures <a rel="license" href="https://creativecommons.org/licenses/by/4.0/">may be used</a>.</p>`,
    ),
    'boardwalk.htm': `<!DOCTYPE html><html lang="en-GB"><head><meta charset="utf-8"><title>The boardwalk | Saltmere</title><link rel="stylesheet" href="old.css"></head><body><header><a href="/">Saltmere</a></header><main><h1>The boardwalk</h1><p><img class="links" src="data:image/gif;base64,R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7" data-src="images/IMG_2214.jpg" alt="Planks leading into the reeds at dawn"><noscript><img src="images/IMG_2214.jpg" alt="Planks leading into the reeds at dawn"></noscript> Half a mile of planks, out to the water and back. It was laid in 1987 and has been mended every winter since.</p><p class="gross">When it is open</p><p>From six in the morning until an hour after sunset. It closes when the tide stands over 4.5 metres.</p><div style="width:480px"><iframe src="${films}/play/reed-cutting-3?autoplay=1" width="480" height="270"></iframe></div><p>To show the film yourself: &lt;iframe src="${films}/play/first-boom-12" width="560" height="315"&gt;&lt;/iframe&gt;</p></main><footer>Saltmere Marsh Reserve</footer></body></html>`,
    'counts.htm': shell(
      'Saltmere - Counts',
      `<h2>Counts since 1998</h2><marquee>New figures!</marquee><dl><dt>Bitterns<dd>Four booming<dt>Herons<dd>Eleven nests</dl><blockquote>A good year, all in all. The reeds stood high.</blockquote><p>- by boat<br>- on foot<br>- from the hides</p>`,
    ),
    'guestbook.htm': shell(
      'Saltmere - Guestbook',
      '<h1>Guestbook</h1><form action="/cgi-bin/guest.pl"><input name="name"><textarea name="words"></textarea><input type="submit"></form><p>Lovely day at the marsh, thank you. <s>Parking was dear.</s></p>',
    ),
    'frames.htm':
      '<html><head><title>Saltmere - Map</title></head><frameset cols="200,*"><frame src="counts.htm"><frame src="tides.htm"><noframes><body><p>The map of the marsh, in two parts: <a href="counts.htm">counts</a>, <a href="tides.htm">tides</a>.</p></body></noframes></frameset></html>',
    'script.htm': shell(
      'Saltmere - Today',
      '<h1>Today at the marsh</h1><script>document.write("<p>Open until six.</p>")</script><p>Come in by the east gate.</p><svg width="40" height="40"><circle r="9"/></svg>',
    ),
    'still.htm': `<html><head><title>Still water</title><style>.still{background-image:url(images/heron-large.jpg)}</style></head><body><div role="img" aria-label="A heron at first light" style="background-image:url(images/heron-large.jpg);width:500px;height:300px"></div><p>Herons stand in the shallows at first light.</p></body></html>`,
  };
}

/** A newsletter of which each issue was made from the one before. */
function notes(): Readonly<Record<string, string>> {
  const issues = Array.from({ length: 13 }, (_, at) => at + 1);
  return Object.fromEntries(
    issues.map((at) => [
      `notes-${at}.htm`,
      shell(
        `Marsh notes ${at}`,
        `<p><b><font size="5">Marsh notes, number ${at}</font></b></p><p>&nbsp;</p><p>The water stands ${at * 2} centimetres ${at % 2 ? 'higher' : 'lower'} than last month, and the reeds ${at % 3 ? 'are green' : 'were cut'}. <img src="images/heron-large.jpg" width="120" height="120" align="right"></p><p>Next month: <a href="notes-${at + 1}.htm">read more</a></p>`,
      ),
    ]),
  );
}
