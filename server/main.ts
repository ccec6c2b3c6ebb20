import { paintOutside } from '../demo/outside-paintings.ts';
import { beginDemo, hangDemo } from '../demo/seed.ts';
import { makeApp } from './app.ts';
import { readConfig } from './config.ts';
import { type Context, closeContext, openContext } from './context.ts';
import { answered, ending } from './ending.ts';
import { workJobs } from './jobs/worker.ts';
import { beginningCode } from './people/beginning.ts';
import { StartProblem } from './start-problem.ts';
import { tellParent } from './tell-parent.ts';

const say = (sentence: string) => process.stdout.write(`${sentence}\n`);
const end = ending();

await run().catch((error: unknown) => {
  // Told to end while it began: what it was at is taken up by the next start.
  if (end.signal.aborted) return;
  // A wrong value, a newer database, a taken port: a sentence for whoever started it, and an end that says so.
  if (error instanceof StartProblem) process.stderr.write(`\n${error.message}\n`);
  else console.error(error);
  process.exit(1);
});

async function run(): Promise<void> {
  process.umask(0o077);
  const config = readConfig(process.env);
  const context = await openContext(config, end.signal);
  end.before(() => closeContext(context));
  if (config.isDemo) await beginDemo(context);
  const code = await beginningCode(context);
  if (code) say(`Nobody works here yet. Begin at ${config.appOrigin}/?code=${code}`);
  const server = makeApp(context).listen(config.port, '127.0.0.1');
  await new Promise<void>((resolve, reject) => {
    server.once('listening', resolve);
    server.once('error', (cause) => reject(portProblem(cause, config.port)));
  });
  end.before(() => answered(server));
  const working = config.worksJobs ? workJobs(context, end.signal) : Promise.resolve();
  end.before(() => working);
  context.texts.warm();
  tellParent('listening');
  const hanging = config.isDemo ? hang(context) : Promise.resolve();
  end.before(() => hanging);
  await hanging;
  tellParent('whole');
}

/** The demo hangs itself while people look on; what a stop breaks off is taken up by the next start. */
async function hang(context: Context): Promise<void> {
  await hangDemo(context, say);
  if (process.env.OUTSIDE_PICTURES)
    await paintOutside(
      process.env.OUTSIDE_PICTURES,
      Number(process.env.PLACARD_OUTSIDE_SHARE ?? '1'),
      say,
      end.signal,
    );
  say('The demo is whole.');
}

function portProblem(cause: Error, port: number): Error {
  if (!('code' in cause) || cause.code !== 'EADDRINUSE') return cause;
  return new StartProblem(
    `Port ${port} on this machine is taken by another program. End that, or set PORT to another number.`,
    { cause },
  );
}
