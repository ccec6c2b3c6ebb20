import * as v from 'valibot';

/** The open registry of oEmbed hosts, as far as it is of use here (oEmbed 1.0, section 7.1, providers). */
const RegistrySchema = v.array(
  v.object({
    endpoints: v.fallback(
      v.array(v.object({ url: v.string(), schemes: v.optional(v.array(v.string()), []) })),
      [],
    ),
  }),
);

/** Finds where a host answers by oEmbed about an address; undefined where the registry does not say. */
export type FindEndpoint = (address: string) => string | undefined;

interface Scheme {
  readonly parts: readonly string[];
  readonly endpoint: string;
}

/**
 * A registry ready to be asked. Schemes are addresses with `*` for any run of letters (oEmbed 1.0, section 2.1); in a
 * host, a `*` stands for names under it and never reaches past the first slash. What does not fit is passed over.
 */
export function openRegistry(data: unknown): FindEndpoint {
  const read = v.safeParse(RegistrySchema, data);
  const byHost = new Map<string, Scheme[]>();
  for (const { endpoints } of read.success ? read.output : []) {
    for (const { url, schemes } of endpoints) {
      for (const scheme of schemes) {
        const host = hostKey(scheme);
        if (host)
          byHost.set(host, [...(byHost.get(host) ?? []), { parts: scheme.split('*'), endpoint: url }]);
      }
    }
  }
  return (address) => {
    const schemes = byHost.get(hostKey(address)) ?? [];
    const found = schemes.find(({ parts }) => matches(parts, address));
    return found ? asEndpoint(found.endpoint) : undefined;
  };
}

/** The last two names of a host, by which schemes are looked up: `*` only ever stands before them. */
function hostKey(address: string): string {
  const host = /^https?:\/\/([^/?#:]+)/i.exec(address)?.[1] ?? '';
  const names = host.toLowerCase().split('.').slice(-2).join('.');
  return names.includes('*') ? '' : names;
}

/** Whether the parts between stars follow each other in an address; each as early as it can, so in linear time. */
function matches(parts: readonly string[], address: string): boolean {
  const [first = '', ...others] = parts;
  if (!sameStart(first, address)) return false;
  let at = first.length;
  for (const [index, part] of others.entries()) {
    const isLast = index === others.length - 1;
    if (isLast && part === '') return !crossesHost(parts, index, address, at, address.length);
    const found = isLast ? address.length - part.length : address.indexOf(part, at);
    if (found < at || !address.startsWith(part, found)) return false;
    if (crossesHost(parts, index, address, at, found)) return false;
    at = found + part.length;
  }
  return at === address.length;
}

/** Registries write http where hosts have long been at https. */
function sameStart(start: string, address: string): boolean {
  const bare = (text: string) => text.replace(/^https?:/i, '');
  return (
    bare(address).startsWith(bare(start)) &&
    address.length >= start.length &&
    /^https:/i.test(address) === /^https:/i.test(start)
  );
}

/** Whether the letters that a star in the host stands for reach into the path. */
function crossesHost(
  parts: readonly string[],
  index: number,
  address: string,
  from: number,
  to: number,
): boolean {
  const before = parts.slice(0, index + 1).join('');
  const isInHost = !/^https?:\/\/[^/]*\//i.test(before);
  return isInHost && address.slice(from, to).includes('/');
}

function asEndpoint(url: string): string {
  return url.replace('{format}', 'json').replace('*', 'json');
}
