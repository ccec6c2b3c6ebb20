import { paintOutside } from '../demo/outside-paintings.ts';
import { seedDemo } from '../demo/seed.ts';
import { makeApp } from './app.ts';
import { readConfig } from './config.ts';
import { closeContext, openContext } from './context.ts';
import { workJobs } from './jobs/worker.ts';
import { beginningCode } from './people/beginning.ts';

const config = readConfig(process.env);
const context = await openContext(config);
const say = (sentence: string) => process.stdout.write(`${sentence}\n`);
if (config.isDemo) await seedDemo(context, say);
if (config.isDemo && process.env.OUTSIDE_PICTURES)
  await paintOutside(process.env.OUTSIDE_PICTURES, Number(process.env.PLACARD_OUTSIDE_SHARE ?? '1'), say);

const code = await beginningCode(context);
if (code) say(`Nobody works here yet. Begin at ${config.appOrigin}/?code=${code}`);

const ending = new AbortController();
const server = makeApp(context).listen(config.port, '127.0.0.1', () => process.send?.('listening'));
const working = config.worksJobs ? workJobs(context, ending.signal) : Promise.resolve();

async function end(): Promise<void> {
  ending.abort();
  server.close();
  server.closeAllConnections();
  await working;
  await closeContext(context);
}

for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.once(signal, () => {
    end().then(
      () => process.exit(0),
      () => process.exit(1),
    );
  });
}
