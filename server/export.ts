import { mkdir } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import { webSafe } from '#core/naming/names.ts';
import { sayFinding } from '#core/proof/say.ts';
import { seedDemo } from '../demo/seed.ts';
import { readConfig } from './config.ts';
import { closeContext, openContext } from './context.ts';
import { writeBundle } from './deliver/bundle.ts';
import { whatStops } from './pages/gate.ts';
import { readPages } from './pages/store.ts';

// Writes every page that may go out as the content of its ZIP into a folder, and says what stops the others.
const [, , folder] = process.argv;
if (!folder) {
  process.stderr.write('Say into which folder: npm run export -- DIR\n');
  process.exit(2);
}
const context = await openContext(readConfig(process.env));
if (context.config.isDemo) await seedDemo(context, (sentence) => process.stdout.write(`${sentence}\n`));
for (const whole of (await readPages(context)).wholes) {
  const [stop] = whatStops(whole);
  if (stop) {
    process.stdout.write(`${whole.doc.title}: left out. ${sayFinding(stop).sentence}\n`);
    continue;
  }
  const into = join(resolve(folder), webSafe(whole.doc.title) || whole.row.id);
  await mkdir(into, { recursive: true });
  const written = await writeBundle(context, whole, into, async () => {});
  process.stdout.write(`${into}: ${written.length} files\n`);
}
await closeContext(context);
