import { readConfig } from '../config.ts';
import { closeContext, openContext } from '../context.ts';
import { tidy } from './tidy.ts';

// npm run tidy: what workers do once an hour, now, with a word on each thing.
const context = await openContext(readConfig(process.env));
for (const [what, count] of Object.entries(await tidy(context, new Date())))
  process.stdout.write(`${what.padEnd(10)} ${count}\n`);
await closeContext(context);
