/** How many worlds the tests run in side by side, each with a server, a database and a world outside of its own. */
export const WORLDS = 2;

/** Where one of them stands; `serve.mjs` starts it there. */
export const portOf = (world: number): number => 4520 + 10 * world;

/** The world of the process that runs a test: each has its own, so that what one breaks is not missed in another. */
const WORLD = Number(process.env.TEST_PARALLEL_INDEX ?? 0);
const PORT = portOf(WORLD);
export const ORIGIN = `http://localhost:${PORT}`;
/** Where the world outside stands, in small. */
export const OUTSIDE_PORT = PORT + 1;
/** Breaks things on purpose: the line to the database, the server itself. */
export const controlOf = (world: number): string => `http://127.0.0.1:${portOf(world) + 2}`;
export const CONTROL = controlOf(WORLD);
/** Where the page of all controls stands, which is not part of what is built. */
export const UI_PORT = 4510;
export const UI_ORIGIN = `http://localhost:${UI_PORT}`;
