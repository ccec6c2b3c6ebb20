import { readConfig } from './config.ts';
import { closeContext, openContext } from './context.ts';
import { ending } from './ending.ts';
import { workJobs } from './jobs/worker.ts';
import { tellParent } from './tell-parent.ts';

// A process that only works jobs: as many as wanted, beside one database and one store of files.
process.umask(0o077);
const end = ending();
const context = await openContext(readConfig(process.env), end.signal);
end.before(() => closeContext(context));
const working = workJobs(context, end.signal);
end.before(() => working);
tellParent('working');
await working;
