interface Orders {
  readonly base: readonly string[];
  readonly mine: readonly string[];
  readonly theirs: readonly string[];
}

/**
 * Puts two changed orders of IDs together, against the order both began from. `ids` are those that stay. Theirs is the order
 * that stands; what only I added or moved goes behind what it followed in mine, after what they added there.
 */
export function mergedOrder(ids: ReadonlySet<string>, { base, mine, theirs }: Orders): readonly string[] {
  const [inBase, inMine, inTheirs] = [new Set(base), new Set(mine), new Set(theirs)];
  const movedByMe = movedOf(base, mine);
  const movedByThem = movedOf(base, theirs);
  const isMine = (id: string) => !inTheirs.has(id) || (movedByMe.has(id) && !movedByThem.has(id));
  const standing = theirs.filter((id) => ids.has(id) && !(inMine.has(id) && isMine(id)));
  const isStanding = new Set(standing);
  const behind = new Map<string, string[]>();
  let before = START;
  for (const id of mine) {
    if (isStanding.has(id)) before = id;
    else if (ids.has(id)) pushTo(behind, before, id);
  }
  const order: string[] = [];
  let waiting = behind.get(START) ?? [];
  for (const id of standing) {
    const isAddedByThem = !inBase.has(id) && !inMine.has(id);
    if (!isAddedByThem) {
      order.push(...waiting);
      waiting = behind.get(id) ?? [];
    }
    order.push(id);
  }
  order.push(...waiting);
  // What stood in something that is gone comes last.
  const placed = new Set(order);
  return [...order, ...[...ids].filter((id) => !placed.has(id))];
}

/** What is in front of everything. */
const START = '';

function pushTo(lists: Map<string, string[]>, key: string, value: string): void {
  const list = lists.get(key);
  if (list) list.push(value);
  else lists.set(key, [value]);
}

/** What stands in both orders and had to be moved to get from one to the other: all but a longest run in the same order. */
export function movedOf(from: readonly string[], to: readonly string[]): ReadonlySet<string> {
  const places = new Map(from.map((id, at) => [id, at]));
  const common = to.filter((id) => places.has(id));
  const stays = longestRising(common.map((id) => places.get(id) ?? 0));
  return new Set(common.filter((_, at) => !stays.has(at)));
}

/** The indexes of a longest strictly rising run of values (patience sorting, n log n). */
function longestRising(values: readonly number[]): ReadonlySet<number> {
  const tails: number[] = [];
  const previous: (number | undefined)[] = [];
  for (const [at, value] of values.entries()) {
    const place = firstNotBelow(tails, values, value);
    previous.push(place > 0 ? tails[place - 1] : undefined);
    tails[place] = at;
  }
  const run = new Set<number>();
  for (let at = tails.at(-1); at !== undefined; at = previous[at]) run.add(at);
  return run;
}

function firstNotBelow(tails: readonly number[], values: readonly number[], value: number): number {
  let [low, high] = [0, tails.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((values[tails[middle] ?? 0] ?? 0) < value) low = middle + 1;
    else high = middle;
  }
  return low;
}
