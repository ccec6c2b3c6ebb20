import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import express, { type Express, type RequestHandler } from 'express';
import session from 'express-session';
import helmet from 'helmet';
import { rememberAsker } from './audit.ts';
import { auditRoutes } from './audit-routes.ts';
import type { Context } from './context.ts';
import { deliverRoutes } from './deliver/routes.ts';
import { deskRoutes } from './desk/routes.ts';
import { embedRoutes } from './embeds/routes.ts';
import { clipRoutes, gatherRoutes } from './gather/routes.ts';
import { uploadRoutes } from './gather/uploads.ts';
import { healthRoutes } from './health.ts';
import { likenessRoutes } from './imaging/likeness/routes.ts';
import { inheritedRoutes } from './inherited/routes.ts';
import { jobRoutes } from './jobs/routes.ts';
import { mediaRoutes } from './media/routes.ts';
import { notifyRoutes } from './notify/routes.ts';
import { openApi } from './openapi.ts';
import { partRoutes } from './pages/part-routes.ts';
import { pageRoutes } from './pages/routes.ts';
import { colleagueRoutes } from './people/colleague-routes.ts';
import { sameOrigin, signedIn } from './people/guard.ts';
import { peopleRoutes } from './people/routes.ts';
import { SESSION_MILLIS, SessionStore } from './people/session-store.ts';
import { answerNotFound, answerProblems } from './problem.ts';
import { reportRoutes } from './report/routes.ts';
import { rightsRoutes } from './rights/routes.ts';
import { rulesRoutes } from './rules/routes.ts';
import { runRoutes } from './runs/routes.ts';
import { publicRoutes } from './sending/public-files.ts';
import { sendingRoutes } from './sending/routes.ts';
import { folderRoutes } from './shelf/folder-routes.ts';
import { onlySeen } from './shelf/only-seen.ts';
import { putAwayRoutes } from './shelf/put-away-routes.ts';
import { shelfRoutes } from './shelf/routes.ts';
import { wordingRoutes } from './wording/routes.ts';

const webFolder = fileURLToPath(new URL('../dist/web', import.meta.url));
const BODY_LIMIT = '8mb';

/** The whole server: the app on its own origin, and files and previews on the other. */
export function makeApp(context: Context): Express {
  const { config } = context;
  const app = express();
  app.disable('x-powered-by');
  app.set('trust proxy', config.trustedProxies);
  app.use(healthRoutes(context));
  app.use(rememberAsker);
  const media = mediaRoutes(context);
  if (config.publicOrigin !== null) app.use(onlyAt(config.publicOrigin, publicRoutes(context)));
  if (config.publicOrigin !== null && config.publicOrigin !== config.mediaOrigin)
    app.use(onlyAt(config.publicOrigin, answerNotFound));
  app.use(onlyAt(config.mediaOrigin, media));
  app.use(helmet(helmetOptions(context)));
  app.use('/api', apiRoutes(context));
  app.use('/api', answerNotFound);
  app.use(express.static(webFolder, { index: false, maxAge: '1y', immutable: true }));
  app.get(/^\/(?!assets\/).*/, (_request, response) => {
    response.set('Cache-Control', 'no-cache').sendFile(join(webFolder, 'index.html'));
  });
  app.use(answerNotFound);
  app.use(answerProblems(context.log));
  return app;
}

/** What answers at one of the origins alone. */
function onlyAt(origin: string, handler: RequestHandler): RequestHandler {
  const { host } = new URL(origin);
  return (request, response, next) =>
    request.headers.host === host ? handler(request, response, next) : next();
}

function apiRoutes(context: Context): express.Router {
  const router = express.Router();
  const { config } = context;
  const isHttps = config.appOrigin.startsWith('https:');
  router.use((_request, response, next) => {
    response.set('Cache-Control', 'no-store');
    next();
  });
  router.use(sameOrigin(config.appOrigin));
  router.use(
    session({
      name: 'placard',
      secret: context.secret,
      store: new SessionStore(context.db),
      resave: false,
      saveUninitialized: false,
      cookie: { httpOnly: true, sameSite: 'strict', secure: isHttps, maxAge: SESSION_MILLIS },
    }),
  );
  router.get('/openapi.json', (_request, response) => {
    response.json(openApi());
  });
  router.use(express.json({ limit: BODY_LIMIT }));
  router.use(peopleRoutes(context), clipRoutes(context));
  router.use(signedIn(context));
  router.use(colleagueRoutes(context), notifyRoutes(context));
  router.use('/assets/:id', onlySeen(context));
  router.use(deskRoutes(context), shelfRoutes(context), folderRoutes(context), putAwayRoutes(context));
  router.use(likenessRoutes(context), uploadRoutes(context), gatherRoutes(context), pageRoutes(context));
  router.use(partRoutes(context));
  router.use(rulesRoutes(context), jobRoutes(context), deliverRoutes(context), runRoutes(context));
  router.use(sendingRoutes(context), inheritedRoutes(context));
  router.use(embedRoutes(context), auditRoutes(context), rightsRoutes(context));
  router.use(wordingRoutes(context), reportRoutes(context));
  return router;
}

function helmetOptions({ config }: Context): Parameters<typeof helmet>[0] {
  return {
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        'default-src': ["'none'"],
        'script-src': ["'self'"],
        // Widths, margins and places of measures are set as styles of elements; no style of a page of ours is from outside.
        'style-src': ["'self'", "'unsafe-inline'"],
        'img-src': ["'self'", 'data:', 'blob:', config.mediaOrigin],
        // A film plays in its label from where its file is had.
        // What was recorded a moment ago lies in the browser itself.
        'media-src': [config.mediaOrigin, 'blob:'],
        'font-src': ["'self'"],
        'connect-src': ["'self'"],
        'frame-src': [config.mediaOrigin],
        'worker-src': ["'self'"],
        'form-action': ["'self'"],
        'base-uri': ["'none'"],
        'frame-ancestors': ["'none'"],
      },
    },
    strictTransportSecurity: config.appOrigin.startsWith('https:') ? { maxAge: 31_536_000 } : false,
    crossOriginResourcePolicy: { policy: 'same-origin' },
  };
}
