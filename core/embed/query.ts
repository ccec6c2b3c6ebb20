import type { HostEntry } from './host.ts';
import { readValue } from './parameters.ts';

/** A parameter that stood in the address and that no entry knows. */
export interface UnknownParameter {
  readonly name: string;
  readonly value: string;
}

/** The parameters of an address, apart. */
export interface Query {
  readonly parameters: Readonly<Record<string, string>>;
  readonly unknown: readonly UnknownParameter[];
  readonly tracking: readonly string[];
}

const MOST_PARAMETERS = 60;

/** The parameters of an address: those the entry knows, in the form that it writes; those that track; the others. */
export function readQuery(url: URL, entry: HostEntry | undefined): Query {
  const parameters: Record<string, string> = {};
  const unknown: UnknownParameter[] = [];
  const tracking: string[] = [];
  for (const [name, value] of [...url.searchParams].slice(0, MOST_PARAMETERS)) {
    const known = entry?.parameters.find((parameter) => parameter.name === name);
    const read = known ? readValue(known, value) : undefined;
    if (known && read !== undefined) parameters[name] = read;
    else if (isTracking(name, entry)) tracking.push(name);
    else if (!known && name.length <= 60 && value.length <= 300) unknown.push({ name, value });
  }
  return { parameters, unknown, tracking };
}

/** Names that tell who shared an address, whatever the host: campaign names and click numbers. */
const TRACKING = /^(utm_[a-z]{1,20}|[a-z]{0,3}clid|ref)$/i;

function isTracking(name: string, entry: HostEntry | undefined): boolean {
  return (
    TRACKING.test(name) ||
    (entry?.tracking ?? []).some((one) =>
      one.endsWith('*') ? name.startsWith(one.slice(0, -1)) : one === name,
    )
  );
}
