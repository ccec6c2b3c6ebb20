import { benchCore } from './core.ts';
import { benchEmbeds } from './embeds.ts';
import { benchFilm } from './film.ts';
import { benchInterface } from './interface.ts';
import { benchLedger } from './ledger.ts';
import { benchLikeness } from './likeness.ts';
import { benchLoad } from './load.ts';
import { benchMany, benchPictures } from './pictures.ts';
import { benchReaders } from './readers.ts';
import { benchMemory, benchRuns } from './runs.ts';
import { benchScript } from './script-size.ts';
import { benchSending } from './sending.ts';
import { benchServed } from './served.ts';
import { benchShelf } from './shelf.ts';
import { openWorld } from './world.ts';

/**
 * Each figure is a ratio against the bare library or the raw query in the same run on the same files, or a time on
 * this machine. Nothing is asserted. `npm run bench -- shelf` runs one part; `many`, `runs`,
 * `readers` and `load` take minutes and are run only when they are named.
 */
const PARTS = {
  core: () => benchCore(),
  embeds: () => benchEmbeds(),
  script: () => benchScript(),
  pictures: inWorld(benchPictures),
  shelf: inWorld(benchShelf),
  ledger: inWorld(benchLedger),
  interface: inWorld(benchInterface),
  sending: () => benchSending(),
  film: () => benchFilm(),
  served: inWorld(benchServed),
  many: inWorld((world) => benchMany(world, 200)),
  runs: inWorld((world) => benchRuns(world, 200)),
  memory: inWorld((world) => benchMemory(world, 1000)),
  likeness: inWorld(benchLikeness),
  readers: inWorld(benchReaders),
  load: inWorld(benchLoad),
} as const;
const USUAL = [
  'core',
  'embeds',
  'script',
  'pictures',
  'likeness',
  'shelf',
  'ledger',
  'sending',
  'film',
  'interface',
];

function inWorld(work: (world: Awaited<ReturnType<typeof openWorld>>) => Promise<void>) {
  return async () => {
    const world = await openWorld();
    try {
      await work(world);
    } finally {
      await world.close();
    }
  };
}

const asked = process.argv.slice(2);
for (const [name, run] of Object.entries(PARTS)) {
  if ((asked.length > 0 ? asked : USUAL).includes(name)) await run();
}
