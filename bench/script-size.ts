import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { say } from './measure.ts';

/** What the first screen loads, compressed, and what each later screen adds. */
export async function benchScript(): Promise<void> {
  const folder = join(import.meta.dirname, '..', 'dist', 'web');
  const html = await readFile(join(folder, 'index.html'), 'utf8').catch(() => null);
  if (!html) {
    say('script of the first screen', 'not built yet: npm run build');
    return;
  }
  const first = [...html.matchAll(/assets\/[^"]+\.js/g)].map(([path]) => path);
  const kB = async (path: string) => gzipSync(await readFile(join(folder, path)), { level: 9 }).length / 1000;
  const sizes = await Promise.all(first.map(kB));
  say(
    'script of the first screen, compressed (aim: at most 200 kB)',
    `${Math.round(sizes.reduce((sum, size) => sum + size, 0))} kB`,
  );
  const styles = await Promise.all([...html.matchAll(/assets\/[^"]+\.css/g)].map(([path]) => kB(path)));
  say(
    'style of the first screen, compressed (aim: at most 20 kB)',
    `${Math.round(styles.reduce((sum, size) => sum + size, 0))} kB`,
  );
  const later = (await readdir(join(folder, 'assets')))
    .filter((name) => name.endsWith('.js') && !first.includes(`assets/${name}`))
    .map((name) => `assets/${name}`);
  const all = await Promise.all(later.map(kB));
  say('script of all later screens together', `${Math.round(all.reduce((sum, size) => sum + size, 0))} kB`);
}
