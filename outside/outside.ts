import express, { type Express, type Router } from 'express';
import { anysite } from './anysite.ts';
import { bell } from './bell.ts';
import { brackwater } from './brackwater.ts';
import { commonfield } from './commonfield.ts';
import { corkline } from './corkline.ts';
import { fathomchart } from './fathomchart.ts';
import { hideScreens } from './hide-screens.ts';
import { lanternreel } from './lanternreel.ts';
import { loftdrive } from './loftdrive.ts';
import { misbehave } from './misbehave.ts';
import { murmurline } from './murmurline.ts';
import { post } from './post.ts';
import { bulletinSite, reserveSite } from './reserve-site.ts';
import { wayside } from './wayside.ts';

/** Every stand-in by the first part of its host name, such as reserve.localhost. */
const HOSTS: Readonly<Record<string, () => Router>> = {
  reserve: reserveSite,
  bulletin: bulletinSite,
  hides: hideScreens,
  anysite,
  commonfield,
  wayside,
  brackwater,
  loftdrive,
  lanternreel,
  fathomchart,
  corkline,
  murmurline,
  post,
  bell,
};

/** All stand-ins behind one port; each has its own origin, as in life. */
export function makeOutside(port: number): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(misbehave);
  const routers = new Map(Object.entries(HOSTS).map(([name, make]) => [name, make()]));
  app.use((request, response, next) => {
    const router = routers.get((request.hostname ?? '').replace(/\.localhost$/, ''));
    if (router) router(request, response, next);
    else
      response
        .status(404)
        .type('text')
        .send(
          `No service of this name stands here. Known: ${[...routers.keys()].map((name) => `http://${name}.localhost:${port}`).join(', ')}\n`,
        );
  });
  return app;
}
