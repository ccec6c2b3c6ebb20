import { makeOutside } from './outside.ts';
import { mailHost } from './post.ts';

// The world outside, in small: one process on loopback, a host name for each service.
const port = Number(process.env.OUTSIDE_PORT ?? '4401');
const mail = mailHost();
mail.on('error', (error) => process.stderr.write(`The mail host: ${error.message}\n`));
mail.listen(Number(process.env.OUTSIDE_MAIL_PORT ?? port + 4), '127.0.0.1');
const server = makeOutside(port).listen(port, '127.0.0.1', () => process.send?.('listening'));
const end = () => {
  mail.close();
  server.close(() => process.exit(0));
  server.closeAllConnections();
};
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, end);
// Whoever started it is gone.
process.once('disconnect', end);
