/** Where the tests' own Placard stands; `serve.mjs` starts it there. */
const PORT = 4520;
export const ORIGIN = `http://localhost:${PORT}`;
/** Where the world outside stands, in small. */
export const OUTSIDE_PORT = PORT + 1;
/** Breaks things on purpose: the line to the database, the server itself. */
export const CONTROL = 'http://127.0.0.1:4522';
