import { makeOutside } from './outside.ts';

// The world outside, in small: one process on loopback, a host name for each service.
const port = Number(process.env.OUTSIDE_PORT ?? '4401');
const server = makeOutside(port).listen(port, '127.0.0.1', () => process.send?.('listening'));
const end = () => {
  server.close(() => process.exit(0));
  server.closeAllConnections();
};
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, end);
// Whoever started it is gone.
process.once('disconnect', end);
