import { resolve } from 'node:path';
import { readConfig } from '../config.ts';
import { StartProblem } from '../start-problem.ts';
import { restore } from './restore.ts';

// npm run restore -- DIR
const [, , folder] = process.argv;
if (!folder) {
  process.stderr.write('Say from which folder: npm run restore -- DIR\n');
  process.exit(2);
}
try {
  const { at, files, pieces, broken } = await restore(readConfig(process.env), resolve(folder));
  process.stdout.write(`Brought back as of ${at}: ${pieces} pieces, ${files} originals.\n`);
  for (const stem of broken) process.stdout.write(`The original of ${stem} is not in the backup.\n`);
  process.exit(broken.length > 0 ? 1 : 0);
} catch (error) {
  if (!(error instanceof StartProblem)) throw error;
  process.stderr.write(`${error.message}\n`);
  process.exit(1);
}
