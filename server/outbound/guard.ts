import { lookup } from 'node:dns/promises';
import ipaddr from 'ipaddr.js';
import { OutboundProblem } from './problem.ts';

/** Host names that stand for the world outside in the demo and in tests, each at one port of this machine. */
export interface StandIns {
  /** Ports at which any name under `.localhost` may be reached. */
  readonly ports: readonly number[];
  /** Hosts of the house's own network that may be reached though they are private, each as "host:port". */
  readonly near: readonly string[];
}

export type Resolve = (host: string) => Promise<readonly string[]>;

/** All addresses of a host name, as the system resolves it. */
export const systemResolve: Resolve = async (host) => {
  const found = await lookup(host, { all: true, verbatim: true });
  return found.map(({ address }) => address);
};

/**
 * Whether an address of the internet is public. IPv4 inside IPv6, link-local, loopback, private, multicast,
 * metadata services, translation and test ranges are not (IANA special-purpose registries, by way of ipaddr.js).
 */
export function isPublicAddress(address: string): boolean {
  if (!ipaddr.isValid(address)) return false;
  const parsed = ipaddr.process(address);
  if (parsed.range() !== 'unicast') return false;
  // Of IPv6 only what is given out (RFC 4291, 2.4; IANA "IPv6 Global Unicast"): the rest may mean an IPv4 of this machine
  // in one of its old spellings, such as ::127.0.0.1.
  return !(parsed instanceof ipaddr.IPv6) || parsed.match(GLOBAL_UNICAST, 3);
}

const GLOBAL_UNICAST = ipaddr.IPv6.parse('2000::');

const PORT_BY_SCHEME: Readonly<Record<string, number>> = { 'http:': 80, 'https:': 443 };

/**
 * An address that may be asked for. Read by the URL standard, so that odd spellings of a number ("0x7f.1",
 * "2130706433") are seen as what they are. Throws OutboundProblem.
 */
export function webAddress(text: string): URL {
  const trimmed = text.trim();
  if (!URL.canParse(trimmed)) throw new OutboundProblem('not-an-address', '');
  const address = new URL(trimmed);
  if (!(address.protocol in PORT_BY_SCHEME)) throw new OutboundProblem('not-web', '');
  if (address.username !== '' || address.password !== '') throw new OutboundProblem('user-info', '');
  return address;
}

export function portOf(address: URL): number {
  return address.port === '' ? (PORT_BY_SCHEME[address.protocol] ?? 0) : Number(address.port);
}

/**
 * The numeric address to connect to. It is checked after resolution and handed on as it was checked: a name that
 * resolves otherwise a moment later changes nothing. One private address among several refuses the host.
 */
export async function addressToConnect(address: URL, standIns: StandIns, resolve: Resolve): Promise<string> {
  const host = address.hostname.replace(/^\[|\]$/g, '').replace(/\.$/, '');
  if (isStandIn(address, host, standIns)) return '127.0.0.1';
  if (standIns.near.includes(`${host}:${portOf(address)}`)) return nearAddress(host, resolve);
  if (ipaddr.isValid(host)) {
    if (!isPublicAddress(host)) throw new OutboundProblem('private', host);
    return host;
  }
  if (host === 'localhost' || host.endsWith('.localhost')) throw new OutboundProblem('private', host);
  const found = await resolve(host).catch((cause: unknown) => {
    throw new OutboundProblem('unknown-host', host, { cause });
  });
  const [first] = found;
  if (first === undefined) throw new OutboundProblem('unknown-host', host);
  if (!found.every(isPublicAddress)) throw new OutboundProblem('private', host);
  return first;
}

/** Named by whoever runs Placard, so that it may be anywhere. */
async function nearAddress(host: string, resolve: Resolve): Promise<string> {
  if (ipaddr.isValid(host)) return host;
  // Names under it are this machine, whatever the system's resolver knows of that (RFC 6761, 6.3).
  if (host.endsWith('.localhost')) return '127.0.0.1';
  const [first] = await resolve(host).catch(() => []);
  if (first === undefined) throw new OutboundProblem('unknown-host', host);
  return first;
}

function isStandIn(address: URL, host: string, standIns: StandIns): boolean {
  return host.endsWith('.localhost') && standIns.ports.includes(portOf(address));
}
