import type { HostEntry } from './host.ts';
import { readTime, readValue } from './parameters.ts';
import { likeIn, sharedParameter } from './shared-parameters.ts';

/** A parameter that stood in the address and that its host’s entry does not know. */
export interface UnknownParameter {
  readonly name: string;
  readonly value: string;
  /** What hosts usually mean by it; the empty text where nobody knows. */
  readonly means: string;
}

/** The parameters of an address, apart. */
export interface Query {
  readonly parameters: Readonly<Record<string, string>>;
  /** What no entry knows and is kept all the same, since it says where or what of the thing is shown. */
  readonly kept: Readonly<Record<string, string>>;
  readonly unknown: readonly UnknownParameter[];
  readonly tracking: readonly string[];
  /** The name under which each name as it stood is kept, where that is another. */
  readonly renamed: ReadonlyMap<string, string>;
  /** What of the fragment stays in the framed address, with its `#`; the empty text where nothing does. */
  readonly place: string;
}

const MOST_PARAMETERS = 60;
const MOST_NAME = 60;
/** A map's view is written in hundreds of letters. */
const MOST_VALUE = 1500;

/**
 * The parameters of an address: those that its host's entry knows, in the form that it writes; those that many hosts
 * share; those that track; the others. Those of a fragment (a start by Media Fragments URI 1.0, a place on a map) as well.
 */
export function readQuery(url: URL, entry: HostEntry | undefined): Query {
  const sorting = new Sorting(entry);
  for (const [name, value] of [...url.searchParams].slice(0, MOST_PARAMETERS))
    sorting.take(name.replace(/^(?:amp;){1,9}/, ''), value);
  const place = sorting.takeFragment(url.hash);
  return { ...sorting.sorted(), place };
}

class Sorting {
  readonly #entry: HostEntry | undefined;
  readonly #parameters: Record<string, string> = {};
  readonly #kept: Record<string, string> = {};
  readonly #unknown: UnknownParameter[] = [];
  readonly #tracking: string[] = [];
  readonly #renamed = new Map<string, string>();

  constructor(entry: HostEntry | undefined) {
    this.#entry = entry;
  }

  sorted(): Omit<Query, 'place'> {
    return {
      parameters: this.#parameters,
      kept: this.#kept,
      unknown: this.#unknown,
      tracking: this.#tracking,
      renamed: this.#renamed,
    };
  }

  take(name: string, value: string): void {
    const known = this.#entry?.parameters.find((parameter) => parameter.name === name);
    const read = known ? readValue(known, value) : undefined;
    if (known && read !== undefined) this.#parameters[name] = read;
    else if (isTracking(name, this.#entry)) this.#tracking.push(name);
    else if (!known && name !== '' && name.length <= MOST_NAME && value.length <= MOST_VALUE)
      this.#takeUnlisted(name, value);
  }

  #takeUnlisted(name: string, value: string): void {
    const shared = sharedParameter(name, value);
    if (!shared) {
      this.#unknown.push({ name, value, means: '' });
      return;
    }
    if (!this.#entry) {
      this.#parameters[name] = readValue(shared.parameter, value) ?? value;
      return;
    }
    const like = likeIn(this.#entry, shared);
    const read = like && readValue(like, value);
    if (like && read !== undefined) {
      this.#parameters[like.name] ??= read;
      this.#renamed.set(name, like.name);
      return;
    }
    this.#unknown.push({ name, value, means: shared.parameter.label });
    if (shared.says === 'where') this.#kept[name] = value;
  }

  /** Takes a start out of a fragment, and answers what else of it belongs to the framed address. */
  takeFragment(hash: string): string {
    const start = startIn(hash);
    if (start !== null) {
      const like = this.#entry?.parameters.find(({ role }) => role === 'start');
      if (like) {
        this.#parameters[like.name] ??= start;
        this.#renamed.set('#t', like.name);
      } else if (!this.#entry) this.#parameters['#t'] = start;
      return '';
    }
    return PLACE_OR_ROUTE.test(hash) ? hash : '';
  }
}

/**
 * A place on a map (`#map=14/54.1/-3.2`, `#14/54.1/-3.2`, `#@54.1,-3.2,14z`, `#lat=54.1&lon=-3.2`) or a route within a
 * page that is drawn by its script (`#/`, `#!`). Any other fragment names a place to scroll to, and a frame that scrolls
 * takes the page about it along.
 */
const PLACE_OR_ROUTE =
  /^#(?:(?:map=|view=)?-?\d{1,9}(?:\.\d{1,20})?(?:\/-?\d{1,9}(?:\.\d{1,20})?){2,6}|@-?\d{1,3}[\d.,a-z-]{1,99}|(?:ll|lat|lon|lng|center|centre|zoom|z|bbox|extent)=[^#\s]{1,300}|[/!][^\s]{1,900})$/i;

/** Seconds at which a fragment says to start (Media Fragments URI 1.0, 4.2.1; and as players write it). */
function startIn(hash: string): string | null {
  const said = /^#(?:t|start|time)=(?:npt:)?([^,&]{1,20})/i.exec(hash)?.[1];
  const seconds = said === undefined ? undefined : readTime(said.replace(/\.\d{1,9}$/, ''));
  return seconds === undefined ? null : String(seconds);
}

/** Names that tell who shared an address, whatever the host: campaign names, click numbers, who led here. */
const TRACKING =
  /^(utm_[a-z_]{1,20}|[a-z]{0,3}clid|ref|referr?er|ref_(src|url)|cmp(id)?|campaign(_?id)?|share(d|r)?(_?(id|by|via|source))?)$/i;

function isTracking(name: string, entry: HostEntry | undefined): boolean {
  return (
    TRACKING.test(name) ||
    (entry?.tracking ?? []).some((one) =>
      one.endsWith('*') ? name.startsWith(one.slice(0, -1)) : one === name,
    )
  );
}
