import { createReadStream } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { and, eq, isNull } from 'drizzle-orm';
import { type Request, type RequestHandler, type Response, Router } from 'express';
import * as v from 'valibot';
import type { Reader } from '#api/people.ts';
import { chooseForm } from '#core/embed/forms.ts';
import { EMBED_SCRIPT } from '#core/embed/on-page.ts';
import { trackOfName } from '#core/film/captions-name.ts';
import { CUT_FORMATS, type CutFormat, isCutFormat } from '#core/media/formats.ts';
import { sizeAfter } from '#core/media/recipe.ts';
import { maybeRecipe, recipeKey } from '#core/media/recipe-key.ts';
import { embedsOfPage } from '#core/page/embeds-of-page.ts';
import { PAGE_SCRIPT, pageScript, scriptElement } from '#core/page/on-page.ts';
import { documentStyle, styleSheet } from '#core/page/style-sheet.ts';
import { writeDocument, writeListing, writeTeaser } from '#core/page/write.ts';
import type { WriteContext } from '#core/page/write-context.ts';
import { readLate, readSeenAs, styleSeenAs, withoutPicturesOf } from '#core/proof/seen-as.ts';
import { clientGoneSignal } from '../client-abort.ts';
import type { Context } from '../context.ts';
import { held, people } from '../db/schema.ts';
import { fontFaces, fontFile } from '../deliver/fonts.ts';
import { readHosts } from '../embeds/hosts.ts';
import { previewPolicy as embedPolicy, previewDocument, readShown } from '../embeds/preview.ts';
import { vttOf } from '../films/captions.ts';
import { playedFiles } from '../films/files-out.ts';
import { wholeFile } from '../films/made-store.ts';
import { farPreview, readFar } from '../gather/preview.ts';
import { type CutWish, ensureCut, type StoredCut } from '../imaging/cut-store.ts';
import { cutOrDraft } from '../imaging/drafts.ts';
import { SCREEN_QUALITY } from '../imaging/first-look.ts';
import { inheritedDocument } from '../inherited/shown.ts';
import { OutboundProblem } from '../outbound/problem.ts';
import { readPage, type WholePage } from '../pages/store.ts';
import { presentPerson } from '../people/guard.ts';
import { answerNotFound, HttpProblem, notFound } from '../problem.ts';
import { readTarget } from '../rules/store.ts';
import { foreseenDocument } from '../sending/foreseen.ts';
import { deliveredDocument } from '../sending/shown.ts';
import { ownFileOf } from '../shelf/own-file.ts';
import { type AssetRow, fileAddress, pictureMark } from '../shelf/present.ts';
import { sendInRanges } from '../storage/send-in-ranges.ts';
import { originalKey } from '../storage/storage.ts';
import {
  captionsPath,
  cutPath,
  type Opening,
  openingFor,
  openingOf,
  pagePath,
  signedAddress,
  WHOLE_NAME,
} from './addresses.ts';
import { CutCache } from './cut-cache.ts';
import { isRun, slowLine, slowPath } from './slow-line.ts';

const root = fileURLToPath(new URL('../..', import.meta.url));
const FOREVER = 'public, max-age=31536000, immutable';

/** The other origin: pictures, cuts and page previews. It knows no session; every address is signed. */
export function mediaRoutes(context: Context): Router {
  const router = Router();
  router.use((_request, response, next) => {
    response.set({
      'X-Content-Type-Options': 'nosniff',
      'Cross-Origin-Resource-Policy': 'cross-origin',
      // A preview, whose origin is opaque, tells its proof how much came (Resource Timing, 4.5).
      'Timing-Allow-Origin': '*',
      // What opens nothing but by a signed address: the still of a film is fetched as its captions have to be (WHATWG HTML, 4.8.11).
      'Access-Control-Allow-Origin': '*',
      'Referrer-Policy': 'no-referrer',
    });
    response.set('Content-Security-Policy', "default-src 'none'; sandbox");
    next();
  });

  router.use(slowLine(context.config));
  const cache = new CutCache();
  const knownCut: RequestHandler = async (request, response, next) => {
    const found = await cache.read(context, cacheName(request));
    if (found) response.set({ 'Cache-Control': FOREVER, 'Content-Type': found.cut.mime }).end(found.bytes);
    else next();
  };

  router.get('/thumb/:assetId/:recipe/:file', signed(context), knownCut, async (request, response) => {
    const width = Number(/^(\d{1,5})\.webp$/.exec(String(request.params.file))?.[1]);
    const recipe = maybeRecipe(String(request.params.recipe));
    if (!recipe) throw notFound('This picture');
    const wanted = { recipe, width, format: 'webp', quality: SCREEN_QUALITY } as const;
    cache.remember(cacheName(request), await sendCut(context, request, response, wanted));
  });

  router.get('/far/:text', signed(context), async (request, response) => {
    const far = readFar(String(request.params.text));
    if (!far) throw notFound('This picture');
    const bytes = await farPreview(context, far).catch((error: unknown) => {
      throw error instanceof OutboundProblem
        ? new HttpProblem(502, error.message, {}, { cause: error })
        : error;
    });
    response.set('Cache-Control', 'private, max-age=86400').type('image/webp').send(bytes);
  });

  router.get('/file/:assetId/:file', signed(context), async (request, response) => {
    const row = await heldAsset(context, request, String(request.params.assetId));
    const own = ownFileOf(row);
    if (!own) throw notFound('This file');
    const name = String(request.params.file);
    const whole = name === WHOLE_NAME ? wholeFile(row) : null;
    if (whole) {
      response.set({
        'Cache-Control': 'private, max-age=3600',
        'Content-Type': whole.mime,
        'Content-Disposition': `attachment; filename="${own.name}"`,
      });
      await context.storage.withFile(whole.key, (path) => sendInRanges(response, path));
      return;
    }
    const going = row.kind === 'film' ? playedFiles(row).find((file) => file.name === name) : undefined;
    const isOwn = name === own.name || row.kind !== 'film';
    // One that was made by an earlier recipe is there no more.
    if (!isOwn && !going) throw notFound('This file');
    const { mime } = isOwn ? own : (going ?? own);
    const key = going && !isOwn && 'key' in going.from ? going.from.key : originalKey(own.sha256);
    response.set({
      'Cache-Control': 'private, max-age=86400',
      'Content-Type': mime,
      // Never opened on this origin either: whatever it is, it is saved, or played where a page asks for it.
      'Content-Disposition': `attachment; filename="${isOwn ? own.name : name}"`,
    });
    await context.storage.withFile(key, (path) => sendInRanges(response, path));
  });

  router.get('/captions/:as/:assetId/:file', signed(context), async (request, response) => {
    const row = await heldAsset(context, request, String(request.params.assetId));
    const track = trackOfName(String(request.params.file));
    const as = request.params.as === 'made' ? 'made' : 'whole';
    const text = track === null ? null : await vttOf(context, row, { ...track, as });
    if (text === null) throw notFound('These captions');
    response.set({ 'Cache-Control': 'no-store' }).type('text/vtt').send(text);
  });

  const cutAddress = '/cut/:assetId/:recipe/:width/:quality/:file';
  router.get(cutAddress, signed(context), knownCut, async (request, response) => {
    const recipe = maybeRecipe(String(request.params.recipe));
    const format = formatOf(String(request.params.file));
    if (!recipe || !format) throw notFound('This cut');
    const [width, quality] = [Number(request.params.width), Number(request.params.quality)];
    const source = await cuttable(context, request, { recipe, width });
    const cut = await cutOrDraft(
      context,
      source,
      { recipe, width, format, quality },
      clientGoneSignal(response),
    );
    // A draft is asked for anew at the next look: by then the cut may be there.
    if (!('key' in cut)) response.set('Cache-Control', 'no-store').type(cut.mime).end(cut.bytes);
    else {
      await streamCut(context, response, cut);
      cache.remember(cacheName(request), cut);
    }
  });

  router.get(
    '/detail/:assetId/:recipe/:width/:quality/:x/:y/:file',
    signed(context),
    async (request, response) => {
      const params = v.parse(DetailSchema, request.params);
      const recipe = maybeRecipe(params.recipe);
      const format = formatOf(params.file);
      const source = await heldAsset(context, request, params.assetId);
      if (!recipe || !format) throw notFound('This picture');
      const { width, quality, x, y } = params;
      const original = { width: source.widthPx, height: source.heightPx };
      const cut = { original, recipe, width, format, quality };
      const left = clientGoneSignal(response);
      const bytes = await context.storage.withFile(originalKey(source.sha256), (path) =>
        context.pictures.detail({ path, cut, at: { x, y } }, left),
      );
      response.set('Cache-Control', FOREVER).type('image/png').send(bytes);
    },
  );

  router.get('/page/:pageId/:version/:readerId', signed(context), async (request, response) => {
    const whole = await pageOf(context, request);
    const embeds = embedsOfPage(whole.doc, whole.rules, whole.pieces);
    const seen = readSeenAs(request.query.as);
    const path = `${pagePath(whole.row, String(request.params.readerId))}style.css`;
    const late = readLate(request.query.late).join('.');
    const written = writeDocument(whole.doc, {
      ...previewed(context, whole),
      screen: readScreen(request.query.screen),
      styleSheet: `${signedAddress(context, path, 'look')}&as=${seen}&late=${late}${isRun(request.query.line) ? `&line=${request.query.line}` : ''}`,
      // What measures is the proof's, and no part of the page.
      head: `<script src="/measure.js"></script>\n${seen === 'no-script' ? '' : scriptsOf(whole, embeds.length > 0)}`,
    });
    const { line } = request.query;
    const { mediaOrigin } = context.config;
    const html = isRun(line)
      ? written.replaceAll(`${mediaOrigin}/`, `${mediaOrigin}${slowPath(line)}/`)
      : written;
    const policy = embeds.length > 0 ? embedPolicy(context, embeds) : previewPolicy(context);
    response.set(
      'Content-Security-Policy',
      seen === 'no-pictures' ? policy.replace(/img-src [^;]*/, "img-src 'none'") : policy,
    );
    response.set('Cache-Control', 'no-store').type('html').send(html);
  });

  router.get('/listing/:pageId/:version/:readerId', signed(context), async (request, response) => {
    const whole = await pageOf(context, request);
    const teaser = writeTeaser(whole.doc, previewed(context, whole), '#');
    const html = writeListing([teaser, ...NEIGHBOURS], {
      rules: whole.rules,
      styleSheet: signedAddress(
        context,
        `${pagePath(whole.row, String(request.params.readerId))}style.css`,
        'look',
      ),
      head: '<script src="/measure.js"></script>\n',
    });
    response
      .set({ 'Content-Security-Policy': previewPolicy(context), 'Cache-Control': 'no-store' })
      .type('html')
      .send(html);
  });

  router.get('/page/:pageId/:version/:readerId/style.css', signed(context), async (request, response) => {
    const whole = await pageOf(context, request);
    const { line } = request.query;
    response
      .set('Cache-Control', 'no-store')
      .type('css')
      .send(
        styleSeenAs(
          readSeenAs(request.query.as),
          `${withoutPicturesOf(readLate(request.query.late))}${fontFaces(`${isRun(line) ? slowPath(line) : ''}/fonts`)}${documentStyle(whole.rules)}${styleSheet(whole.rules, whole.doc, whole.pieces)}`,
        ),
      );
  });

  router.get('/delivery/:id/:which', signed(context), async (request, response) => {
    const which = request.params.which === 'found' ? 'found' : 'sent';
    const html = await deliveredDocument(context, String(request.params.id), which, '/measure.js');
    response
      .set({ 'Content-Security-Policy': deliveryPolicy(context), 'Cache-Control': 'no-store' })
      .type('html')
      .send(html);
  });

  router.get(
    '/foreseen/:pageId/:version/:readerId/:targetId/:which',
    signed(context),
    async (request, response) => {
      const which = request.params.which === 'found' ? 'found' : 'sent';
      const whole = await pageOf(context, request);
      const html = await foreseenDocument(
        context,
        whole,
        { ...previewed(context, whole), isMarked: false },
        which,
      );
      response
        .set({ 'Content-Security-Policy': deliveryPolicy(context), 'Cache-Control': 'no-store' })
        .type('html')
        .send(html);
    },
  );

  router.get('/inherited/:id/:which', signed(context), async (request, response) => {
    const which = request.params.which === 'found' ? 'found' : 'written';
    const html = await inheritedDocument(context, String(request.params.id), which, {
      script: '/measure.js',
      mends: request.query.mends !== '0',
    });
    response
      .set({ 'Content-Security-Policy': deliveryPolicy(context), 'Cache-Control': 'no-store' })
      .type('html')
      .send(html);
  });

  router.get('/embed/:text', signed(context), async (request, response) => {
    const shown = readShown(String(request.params.text));
    if (!shown) throw notFound('This embed');
    const [hosts, { rules }] = await Promise.all([readHosts(context), readTarget(context, shown.target)]);
    // Whatever was wished for: what is not trusted is not framed here either.
    const { embed } = shown;
    const form = chooseForm({ embed, target: rules, hosts, framing: null, hasPoster: true }, shown.form);
    response
      .set({
        'Content-Security-Policy': embedPolicy(context, [{ held: { embed, hosts }, form }]),
        'Cache-Control': 'no-store',
        // Some hosts only play where they are told from which site they are asked.
        'Referrer-Policy': 'strict-origin-when-cross-origin',
      })
      .type('html')
      .send(previewDocument(context, { ...shown, form }, rules, hosts));
  });

  router.get('/embeds.js', (_request, response) => {
    response.type('js').send(EMBED_SCRIPT);
  });

  router.get('/page.js', (_request, response) => {
    response.type('js').send(PAGE_SCRIPT);
  });

  router.get('/measure.js', (_request, response) => {
    response.type('js');
    createReadStream(join(root, 'server/media/measure.js')).pipe(response);
  });

  router.get('/fonts/:file', (request, response) => {
    const file = fontFile(String(request.params.file));
    if (!file) throw notFound('This font');
    response.set({ 'Cache-Control': FOREVER }).type('font/woff2');
    createReadStream(file).pipe(response);
  });

  router.get('/', (_request, response) => {
    response.redirect(context.config.appOrigin);
  });
  // Whatever else there is belongs to the app, whose screens and data are on its own origin alone.
  router.use(answerNotFound);
  return router;
}

/** The page in the version that the address was made for: it does not follow the page to what is written later. */
async function pageOf(context: Context, request: Request): Promise<WholePage> {
  const { pageId, targetId } = request.params;
  const other = targetId === undefined ? undefined : String(targetId);
  const whole = await readPage(context, String(pageId), await readerOf(context, request), other);
  if (String(whole.row.version) !== request.params.version)
    throw new HttpProblem(410, 'The page was changed since this look at it. Open its proof anew.');
  return whole;
}

/** The scripts that go out with a page, where it needs any. */
function scriptsOf({ doc, pieces, rules }: WholePage, hasEmbeds: boolean): string {
  const embeds = hasEmbeds ? '<script src="/embeds.js" async></script>\n' : '';
  return `${embeds}${pageScript(doc, pieces) === '' ? '' : scriptElement('/page.js', rules.language)}`;
}

/** The preview shows exactly the page; the one script in it measures, and its own origin is opaque. */
function previewPolicy(context: Context): string {
  const { mediaOrigin, appOrigin } = context.config;
  return [
    "default-src 'none'",
    `img-src ${mediaOrigin}`,
    `media-src ${mediaOrigin}`,
    `style-src ${mediaOrigin} 'unsafe-inline'`,
    `font-src ${mediaOrigin}`,
    `script-src ${mediaOrigin}/measure.js ${mediaOrigin}/page.js`,
    `frame-ancestors ${appOrigin}`,
    'sandbox allow-scripts',
  ].join('; ');
}

/** What stands on a site of the house is looked at with its own pictures and styles; nothing of it runs. */
function deliveryPolicy({ config: { mediaOrigin, appOrigin } }: Context): string {
  return [
    "default-src 'none'",
    'img-src http: https: data:',
    "style-src http: https: 'unsafe-inline'",
    'font-src http: https: data:',
    `script-src ${mediaOrigin}/measure.js`,
    `frame-ancestors ${appOrigin}`,
    'sandbox allow-scripts',
  ].join('; ');
}

/** For whom the look at a page was made. */
async function readerOf({ db }: Context, request: Request): Promise<Reader> {
  const [row] = await db
    .select()
    .from(people)
    .where(and(eq(people.id, String(request.params.readerId)), isNull(people.leftAt)));
  if (!row) throw notFound('This page');
  return presentPerson(row);
}

const openings = new WeakMap<Request, Opening>();

/** What was sent is sent again only by an address that opens the same. */
const cacheName = (request: Request): string =>
  `${openings.get(request)} ${request.path} ${typeof request.query.p === 'string' ? request.query.p.slice(0, 8) : ''}`;

function signed(context: Context): RequestHandler {
  return (request: Request, _response, next) => {
    const opening = openingOf(context, request.path, request.query);
    if (!opening) throw notFound('This address');
    openings.set(request, opening);
    next();
  };
}

/** An address made where a piece can be brought back opens it as well once it was. */
const opens = (given: Opening | undefined, needed: Opening): boolean =>
  given === needed || (given === 'thrown-away' && needed === 'held');

/** A piece that is held. One that was thrown away is shown only where it can be brought back. */
async function heldAsset(context: Context, request: Request, assetId: string): Promise<AssetRow> {
  const [row] = await context.db.select().from(held).where(eq(held.id, assetId));
  if (!row || !opens(openings.get(request), openingFor(row))) throw notFound('This picture');
  return row;
}

async function sendCut(
  context: Context,
  request: Request,
  response: Response,
  wanted: CutWish,
): Promise<StoredCut> {
  const source = await cuttable(context, request, wanted);
  const { recipe, width, format, quality } = wanted;
  const left = clientGoneSignal(response);
  const cut = await ensureCut(context, source, recipe, width, format, quality, left);
  await streamCut(context, response, cut);
  return cut;
}

/** The piece of a request, of which a cut as wide as this can be made. */
async function cuttable(
  context: Context,
  request: Request,
  { recipe, width }: Pick<CutWish, 'recipe' | 'width'>,
): Promise<AssetRow> {
  const source = await heldAsset(context, request, String(request.params.assetId));
  const most = sizeAfter({ width: source.widthPx, height: source.heightPx }, recipe).width;
  if (!(width >= 1 && width <= most)) throw new HttpProblem(404, 'No cut is made wider than its original.');
  return source;
}

async function streamCut(context: Context, response: Response, cut: StoredCut): Promise<void> {
  response.set({ 'Cache-Control': FOREVER, 'Content-Type': cut.mime, 'Content-Length': String(cut.bytes) });
  const stream = await context.storage.stream(cut.key);
  stream.on('error', (error) => response.destroy(error));
  stream.pipe(response);
}

const number = v.pipe(v.string(), v.transform(Number), v.finite());
const DetailSchema = v.object({
  assetId: v.string(),
  recipe: v.string(),
  width: number,
  quality: number,
  x: number,
  y: number,
  file: v.string(),
});

function formatOf(fileName: string): CutFormat | undefined {
  const extension = fileName.split('.').at(-1);
  return Object.keys(CUT_FORMATS)
    .filter(isCutFormat)
    .find((format) => CUT_FORMATS[format].extension === extension);
}

/** How sharp the reader's screen is, against the one that it is looked at on. */
function readScreen(text: unknown): number {
  const times = typeof text === 'string' && /^\d(\.\d{1,4})?$/.test(text) ? Number(text) : 1;
  return times > 0 ? times : 1;
}

/** How a page is written to be looked at: each file by an address that is signed. */
function previewed(context: Context, { rules, pieces, pages, assets }: WholePage): WriteContext {
  return {
    isMarked: true,
    rules,
    pieces,
    pages,
    fileOf: (name, assetId) => {
      const row = assets.find(({ id }) => id === assetId);
      if (!row) return '';
      return trackOfName(name) === null
        ? fileAddress(context, row, name)
        : signedAddress(context, captionsPath(assetId, name, 'made'), openingFor(row));
    },
    addressOf: (cut) => {
      const row = assets.find(({ id }) => id === cut.assetId);
      const path = cutPath(cut.assetId, recipeKey(cut.recipe), cut.size.width, cut.quality, cut.fileName);
      return `${signedAddress(context, path, row ? openingFor(row) : 'held')}${row ? pictureMark(row) : ''}`;
    },
  };
}

/** What a teaser stands beside in a listing: other pages, as grey ground. */
const NEIGHBOURS = Array.from(
  { length: 2 },
  () =>
    '<div class="teaser" aria-hidden="true"><div style="aspect-ratio:3/2;background:#e3e9eb"></div><div style="height:14px;width:70%;margin-top:14px;background:#e3e9eb"></div><div style="height:10px;margin-top:10px;background:#eef2f3"></div></div>',
);
