import type { RequestHandler } from 'express';

const SLOW_MILLIS = 5000;

/** What `/-/misbehave/KIND` last set for each host. */
const moods = new Map<string, string>();

/** What was last set for a host. */
export const moodOf = (host: string): string | undefined => moods.get(host);

/**
 * `?misbehave=` makes any one answer slow, cut off after the work was done, gone, forbidden, overloaded, broken, cut off, mistyped, endless or not to be framed, for tests
 * and for the demo; `/-/misbehave/KIND` does it to a whole service from then on, until `/-/misbehave/well`.
 */
export const misbehave: RequestHandler = (request, response, next) => {
  const mood = /^\/-\/misbehave\/([a-z-]+)$/.exec(request.path)?.[1];
  if (mood) {
    moods.set(request.hostname, mood);
    response.type('text').send(`${request.hostname} is ${mood} from now on.\n`);
    return;
  }
  switch (request.query.misbehave ?? moods.get(request.hostname)) {
    case 'slow':
      setTimeout(next, SLOW_MILLIS);
      return;
    case 'gone':
      response.status(404).type('text').send('Gone');
      return;
    case 'forbidden':
      response.status(403).type('text').send('Not for you');
      return;
    case 'busy':
      response.status(429).set('Retry-After', '1').type('text').send('Too many requests');
      return;
    case 'broken':
      response.status(503).type('text').send('A fault of our own');
      return;
    case 'cut':
      response.set('Content-Length', '1000000').write('begun');
      response.destroy();
      return;
    // What was asked for is done, and nobody hears of it.
    case 'unheard':
      response.end = () => {
        response.destroy();
        return response;
      };
      next();
      return;
    case 'loop':
      response.redirect(request.originalUrl);
      return;
    case 'wrong-type':
      response.set('Content-Type', 'image/jpeg').send('<!DOCTYPE html><title>Not a picture</title>');
      return;
    case 'refuse-framing':
      response.set('X-Frame-Options', 'SAMEORIGIN');
      next();
      return;
    default:
      next();
  }
};
