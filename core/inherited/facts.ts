import { readLicence } from '../gather/reading.ts';
import type { Size } from '../media/dimensions.ts';
import { isUnnamed } from '../naming/gibberish.ts';
import { nameFault } from '../naming/rule.ts';
import { isVagueLink } from '../words/vague-link.ts';
import { type Fault, inOrder, MOST_SPOTS } from './fault.ts';
import type { Inherited, InheritedFile, PictureUse } from './reading.ts';

/** What the file of a picture is; null where its address answers with none. Sizes in px as seen. */
export interface FileFact {
  readonly size: Size;
  /** The piece of the shelf that is the same picture, where there is one. */
  readonly held: string | null;
}

/** What a link leads to today. */
export type LinkFact =
  | { readonly state: 'fine'; readonly title: string }
  | { readonly state: 'moved'; readonly to: string; readonly title: string }
  | { readonly state: 'dead' };

/** What is known of the files and links of a page, by their places in its lists and by address. */
export interface InheritedFacts {
  readonly files: readonly (FileFact | null)[];
  readonly links: Readonly<Record<string, LinkFact>>;
}

/** Enlarged by less is not seen, nor is a shape that differs by a rounded pixel (`rules.md`: 1%). */
const SEEN_ENLARGED = 1.05;
const SEEN_STRETCHED = 0.01;
/** A sharp screen shows two pixels on one: more than that on each side is never seen. */
const OVERSIZED = 2;

/** All faults of an inherited page, in the order in which they are told: its own, and those of its files and links. */
export function allFaults(reading: Inherited, facts: InheritedFacts): readonly Fault[] {
  const own = reading.faults.map((fault) =>
    fault.code === 'link-vague' ? named(fault, reading, facts) : fault,
  );
  return inOrder([
    ...own,
    ...pictureFaults(reading, facts),
    ...fileFaults(reading, facts),
    ...linkFaults(reading, facts),
  ]);
}

/** The name that links to an address get in place of words that say nothing; empty where none is known. */
export function nameOfLink({ links }: InheritedFacts, address: string): string {
  const fact = links[address];
  return fact && fact.state !== 'dead' ? fact.title.trim() : '';
}

function named(
  fault: Extract<Fault, { readonly code: 'link-vague' }>,
  { links }: Inherited,
  facts: InheritedFacts,
): Fault {
  const vague = links.filter(({ words }) => isVagueLink(words));
  const without = vague.filter(({ address }) => nameOfLink(facts, address) === '').length;
  const { count } = fault.values;
  return {
    ...fault,
    values: { ...fault.values, named: vague.length === 0 ? 0 : Math.max(0, count - without) },
  };
}

interface Sized {
  readonly use: PictureUse;
  readonly size: Size;
}

function pictureFaults({ uses }: Inherited, { files }: InheritedFacts): readonly Fault[] {
  const sized = uses.flatMap((use): Sized[] => {
    const fact = files[use.file];
    // What opens larger was shown in a smaller file of its own.
    return fact && use.width?.unit === 'px' && !use.opensLarger ? [{ use, size: fact.size }] : [];
  });
  const stretched = measured(sized, stretchOf).filter(({ by }) => by > SEEN_STRETCHED);
  const enlarged = measured(sized, ({ use, size }) => widthOf(use) / size.width).filter(
    ({ by }) => by > SEEN_ENLARGED,
  );
  const oversized = measured(sized, ({ use, size }) => size.width / widthOf(use)).filter(
    ({ by }) => by >= OVERSIZED,
  );
  return [
    ...told(stretched, (count, most, spots) => ({
      code: 'stretched',
      values: { count, percent: Math.round(most * 100) },
      spots,
    })),
    ...told(enlarged, (count, most, spots) => ({
      code: 'enlarged',
      values: { count, times: rounded(most) },
      spots,
    })),
    ...told(oversized, (count, most, spots) => ({
      code: 'oversized',
      values: { count, times: rounded(most) },
      spots,
    })),
  ];
}

interface Measured {
  readonly spot: number;
  readonly by: number;
}

const measured = (sized: readonly Sized[], of: (one: Sized) => number): readonly Measured[] =>
  sized.map((one) => ({ spot: one.use.spot, by: of(one) }));

const widthOf = ({ width }: PictureUse): number => width?.value ?? 0;

/** By how much its shape on the page differs from its own; 0 where the page says no height. */
function stretchOf({ use, size }: Sized): number {
  if (use.height === 0) return 0;
  const ratio = widthOf(use) / use.height / (size.width / size.height);
  // A height that was rounded to a whole pixel is none that was stretched.
  const isRounded = Math.abs((widthOf(use) * size.height) / size.width - use.height) <= 1;
  return isRounded ? 0 : Math.max(ratio, 1 / ratio) - 1;
}

const rounded = (times: number): number => (times < 10 ? Math.round(times * 10) / 10 : Math.round(times));

function told(
  some: readonly Measured[],
  fault: (count: number, most: number, spots: readonly number[]) => Fault,
): readonly Fault[] {
  if (some.length === 0) return [];
  const spots = some.map(({ spot }) => spot).slice(0, MOST_SPOTS);
  return [fault(some.length, Math.max(...some.map(({ by }) => by)), spots)];
}

function fileFaults({ files, uses }: Inherited, facts: InheritedFacts): readonly Fault[] {
  const all = files.map((file, at) => ({ file, at, fact: facts.files[at] ?? null }));
  const spots = (some: readonly { readonly at: number }[]) =>
    uses.flatMap(({ file, spot }) => (some.some(({ at }) => at === file) ? [spot] : [])).slice(0, MOST_SPOTS);
  const gone = all.filter(({ fact }) => fact === null);
  const there = all.filter(({ fact }) => fact !== null);
  const held = there.filter(({ fact }) => fact?.held);
  const fresh = there.filter(({ fact }) => !fact?.held);
  const unknown = fresh.filter(({ file }) => readLicence(file.statements).kind !== 'clear');
  const ill = fresh.filter(({ file }) => isIllNamed(fileNameOf(file)));
  const example = (some: readonly { readonly file: InheritedFile }[]) =>
    some[0] ? fileNameOf(some[0].file) : '';
  const faults: Fault[] = [
    { code: 'picture-gone', values: { count: gone.length, example: example(gone) }, spots: spots(gone) },
    {
      code: 'licence-unknown',
      values: { count: unknown.length, example: example(unknown) },
      spots: spots(unknown),
    },
    { code: 'file-name', values: { count: ill.length, example: example(ill) }, spots: spots(ill) },
    { code: 'held', values: { count: held.length }, spots: spots(held) },
  ];
  return faults.filter(({ values }) => 'count' in values && values.count > 0);
}

/** What a file is called at its address, as people read it. */
export function fileNameOf({ address }: Pick<InheritedFile, 'address'>): string {
  if (address.startsWith('data:')) return 'picture in the page';
  const name = address.split(/[?#]/)[0]?.split('/').at(-1) ?? '';
  try {
    return decodeURIComponent(name).slice(0, 300);
  } catch {
    return name.slice(0, 300);
  }
}

function isIllNamed(name: string): boolean {
  const stem = name.replace(/\.[a-z0-9]{2,5}$/i, '');
  return nameFault(stem) !== undefined || isUnnamed(stem);
}

function linkFaults({ links }: Inherited, facts: InheritedFacts): readonly Fault[] {
  const inState = (state: LinkFact['state']) =>
    links.filter(({ address }) => facts.links[address]?.state === state);
  const [dead, moved] = [inState('dead'), inState('moved')];
  const spots = (some: typeof links) => some.map(({ spot }) => spot).slice(0, MOST_SPOTS);
  const [first] = dead;
  return [
    ...(first
      ? [
          {
            code: 'link-dead',
            values: { count: dead.length, address: first.address },
            spots: spots(dead),
          } as const,
        ]
      : []),
    ...(moved.length > 0
      ? [{ code: 'link-moved', values: { count: moved.length }, spots: spots(moved) } as const]
      : []),
  ];
}
