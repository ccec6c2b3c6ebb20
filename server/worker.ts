import { readConfig } from './config.ts';
import { closeContext, openContext } from './context.ts';
import { workJobs } from './jobs/worker.ts';

// A process that only works jobs: as many as wanted, beside one database and one store of files.
const context = await openContext(readConfig(process.env));
const ending = new AbortController();
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => ending.abort());
await workJobs(context, ending.signal);
await closeContext(context);
