import type { RequestHandler } from 'express';

const SLOW_MILLIS = 5000;

/** `?misbehave=` makes any address slow, gone, overloaded, cut off, mistyped or endless, for tests and for the demo. */
export const misbehave: RequestHandler = (request, response, next) => {
  switch (request.query.misbehave) {
    case 'slow':
      setTimeout(next, SLOW_MILLIS);
      return;
    case 'gone':
      response.status(404).type('text').send('Gone');
      return;
    case 'busy':
      response.status(429).set('Retry-After', '1').type('text').send('Too many requests');
      return;
    case 'cut':
      response.set('Content-Length', '1000000').write('begun');
      response.destroy();
      return;
    case 'loop':
      response.redirect(request.originalUrl);
      return;
    case 'wrong-type':
      response.set('Content-Type', 'image/jpeg').send('<!DOCTYPE html><title>Not a picture</title>');
      return;
    default:
      next();
  }
};
