/** Why something could not be fetched, as a closed list; each has its sentence. */
const OUTBOUND_FAULTS = [
  'not-an-address',
  'not-web',
  'user-info',
  'private',
  'unknown-host',
  'unreachable',
  'broken-certificate',
  'not-found',
  'refused',
  'busy',
  'server-error',
  'odd-status',
  'too-many-redirects',
  'too-large',
  'too-slow',
  'broken-off',
  'bad-encoding',
  'stopped',
] as const;
export type OutboundFault = (typeof OUTBOUND_FAULTS)[number];

/** Faults that may be gone when it is tried again. */
const PASSING: ReadonlySet<OutboundFault> = new Set([
  'unreachable',
  'busy',
  'server-error',
  'too-slow',
  'broken-off',
]);

/** A fetch of a foreign address that did not come to its end. The message is a sentence for people. */
export class OutboundProblem extends Error {
  readonly fault: OutboundFault;
  readonly host: string;
  /** When the other side said so: how long to wait before it is asked again, in milliseconds. */
  readonly waitMillis: number | null;

  constructor(
    fault: OutboundFault,
    host: string,
    { waitMillis = null, ...options }: { waitMillis?: number | null } & ErrorOptions = {},
  ) {
    super(sayOutboundFault(fault, host), options);
    this.name = 'OutboundProblem';
    this.fault = fault;
    this.host = host;
    this.waitMillis = waitMillis;
  }

  get isPassing(): boolean {
    return PASSING.has(this.fault);
  }
}

function sayOutboundFault(fault: OutboundFault, host: string): string {
  const it = host || 'That place';
  switch (fault) {
    case 'not-an-address':
      return 'That is not a web address. One looks like https://example.org/pictures/heron.';
    case 'not-web':
      return 'Only addresses that begin with https:// or http:// are fetched.';
    case 'user-info':
      return 'The address carries a name or password before the host. Leave that out.';
    case 'private':
      return `${it} is not a public place on the web, so it is not asked for anything.`;
    case 'unknown-host':
      return `There is no place on the web called ${it}. Look at the address for a slip.`;
    case 'unreachable':
      return `${it} does not answer. Try again in a while.`;
    case 'broken-certificate':
      return `${it} cannot prove that it is who it says it is (its certificate is broken), so nothing was taken from it.`;
    case 'not-found':
      return `${it} has nothing at this address any more.`;
    case 'refused':
      return `${it} does not hand this out to other sites. Give the address of the page that shows it, or ask its owner.`;
    case 'busy':
      return `${it} asks to be left alone for a while. Try again later.`;
    case 'server-error':
      return `${it} has a fault of its own just now. Try again in a while.`;
    case 'odd-status':
      return `${it} answered in a way that is not understood.`;
    case 'too-many-redirects':
      return `${it} sends on from one address to the next without end.`;
    case 'too-large':
      return `What ${it} sends is larger than what is taken.`;
    case 'too-slow':
      return `${it} took too long to answer.`;
    case 'broken-off':
      return `The line to ${it} was cut before all had come. Nothing was kept.`;
    case 'bad-encoding':
      return `What ${it} sends cannot be unpacked.`;
    case 'stopped':
      return 'Stopped. Nothing was kept.';
  }
}
