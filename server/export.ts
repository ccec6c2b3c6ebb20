import { mkdir } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import { webSafe } from '#core/naming/names.ts';
import { sayFinding } from '#core/proof/say.ts';
import { seedDemo } from '../demo/seed.ts';
import { readConfig } from './config.ts';
import { closeContext, openContext } from './context.ts';
import { writeBundle } from './deliver/bundle.ts';
import { whatStops } from './pages/gate.ts';
import { everyPage, type WholePage } from './pages/store.ts';
import { keepVersion } from './pages/versions.ts';

// Writes every page that may go out as the content of its ZIP into a folder, and says what stops the others.
const [, , folder] = process.argv;
if (!folder) {
  process.stderr.write('Say into which folder: npm run export -- DIR\n');
  process.exit(2);
}
const taken = new Set<string>();
const context = await openContext(readConfig(process.env));
if (context.config.isDemo) await seedDemo(context, (sentence) => process.stdout.write(`${sentence}\n`));
for await (const { wholes, broken } of everyPage(context)) {
  for (const { row, fault } of broken) process.stdout.write(`${row.title}: left out. ${fault}\n`);
  for (const whole of wholes) await writeOut(whole, folder);
}
await closeContext(context);

async function writeOut(whole: WholePage, under: string): Promise<void> {
  const [stop] = whatStops(whole);
  if (stop) {
    process.stdout.write(`${whole.doc.title}: left out. ${sayFinding(stop).sentence}\n`);
    return;
  }
  const into = join(resolve(under), folderOf(whole));
  await mkdir(into, { recursive: true });
  const written = await writeBundle(context, whole, into, async () => {});
  const { row, doc } = whole;
  const state = { id: crypto.randomUUID(), pageId: row.id, doc, personId: null };
  await keepVersion(context, state, { sent: 'into a folder' }, new Date());
  process.stdout.write(`${into}: ${written.length} files\n`);
}

/** By its title, and by its ID too where another page of that title was written before. */
function folderOf({ row, doc }: WholePage): string {
  const name = webSafe(doc.title);
  const own = name && !taken.has(name) ? name : [name, row.id].filter(Boolean).join('-');
  taken.add(own);
  return own;
}
