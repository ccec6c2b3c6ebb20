// Serves the page of all controls, which is there in development alone, for the tests of how they look and are read.
// Called with the port on which it stands.
import { createServer } from 'vite';

const server = await createServer({
  configFile: 'vite.config.ts',
  logLevel: 'error',
  server: { host: 'localhost', port: Number(process.argv[2]), strictPort: true },
});
await server.listen();

process.on('SIGTERM', async () => {
  await server.close();
  process.exit(0);
});
