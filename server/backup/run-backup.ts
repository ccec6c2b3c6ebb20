import { resolve } from 'node:path';
import { readConfig } from '../config.ts';
import { closeContext, openContext } from '../context.ts';
import { backUp } from './backup.ts';

// npm run backup -- DIR
const [, , folder] = process.argv;
if (!folder) {
  process.stderr.write('Say into which folder: npm run backup -- DIR\n');
  process.exit(2);
}
const context = await openContext(readConfig(process.env));
const { files, dumpBytes } = await backUp(context, resolve(folder), new Date());
process.stdout.write(
  `Backed up: the database in ${dumpBytes} bytes, and ${files} originals that were new.\n`,
);
await closeContext(context);
