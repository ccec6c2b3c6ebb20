import { isOwnMachine } from './address.ts';

/** What another site said when it was asked for a page: its status and headers, each header as often as it came. */
export interface FramingAnswer {
  /** Where it came from in the end, after redirects. */
  readonly address: string;
  readonly status: number;
  readonly frameOptions: readonly string[];
  readonly policies: readonly string[];
}

export type Framing =
  | { readonly kind: 'may'; readonly why: 'nothing-said' | 'named' }
  | {
      readonly kind: 'refused';
      readonly by: 'X-Frame-Options' | 'Content-Security-Policy';
      readonly value: string;
    }
  | { readonly kind: 'gone'; readonly status: number }
  | { readonly kind: 'private'; readonly status: number }
  /** It answered that it cannot just now, which says nothing about framing. */
  | { readonly kind: 'silent'; readonly status: number };

/**
 * Whether a page may be framed by a page of `parent` (an origin). Content-Security-Policy `frame-ancestors` (CSP 3, 6.4.2)
 * stands before X-Frame-Options (WHATWG HTML, 7.9), which is only looked at where no policy names ancestors. Every policy
 * has to agree.
 */
export function framingOf(answer: FramingAnswer, parent: string): Framing {
  const { status } = answer;
  if (status === 401 || status === 403) return { kind: 'private', status };
  if (status === 429 || status >= 500) return { kind: 'silent', status };
  if (status >= 400) return { kind: 'gone', status };
  const ancestors = answer.policies.flatMap(policiesIn).flatMap(ancestorsIn);
  if (ancestors.length > 0) {
    const refusing = ancestors.find((list) => !isNamed(list, parent, answer.address));
    return refusing === undefined
      ? { kind: 'may', why: 'named' }
      : {
          kind: 'refused',
          by: 'Content-Security-Policy',
          value: `frame-ancestors ${refusing.join(' ')}`.trim(),
        };
  }
  return byFrameOptions(answer, parent);
}

/** Several policies may stand in one header, parted by commas (CSP 3, 2.2.2). */
const policiesIn = (header: string): readonly string[] => header.split(',');

/** The sources of the first `frame-ancestors` of a policy; later ones of the same name do not count. */
function ancestorsIn(policy: string): readonly (readonly string[])[] {
  for (const directive of policy.split(';')) {
    const [name, ...sources] = directive.trim().split(/\s+/);
    if (name?.toLowerCase() === 'frame-ancestors') return [sources];
  }
  return [];
}

function isNamed(sources: readonly string[], parent: string, own: string): boolean {
  return sources.some((source) => matches(source, new URL(parent), new URL(own)));
}

const SOURCE =
  /^(?:([a-z][a-z0-9+.-]*):\/\/)?(\*|(?:\*\.)?[a-z0-9-]+(?:\.[a-z0-9-]+)*)(?::(\d{1,5}|\*))?(?:\/.*)?$/i;

/** CSP 3, 6.7.2.8: does an origin match a source expression. The path is not looked at, since ancestors have none. */
function matches(source: string, parent: URL, own: URL): boolean {
  const lower = source.toLowerCase();
  if (lower === "'self'") return isSelf(parent, own);
  if (lower === '*') return parent.protocol === 'http:' || parent.protocol === 'https:';
  if (/^[a-z][a-z0-9+.-]*:$/.test(lower)) return schemeMatches(lower, parent.protocol);
  const found = SOURCE.exec(lower);
  if (!found) return false;
  const [, scheme, host = '', port] = found;
  if (!schemeMatches(scheme ? `${scheme}:` : own.protocol, parent.protocol)) return false;
  return hostMatches(host, parent.hostname) && portMatches(port, scheme, parent);
}

/** A secure page answers to a wish for a plain one of the same name (CSP 3, scheme-part match). */
function schemeMatches(wanted: string, given: string): boolean {
  return wanted === given || (wanted === 'http:' && given === 'https:');
}

function isSelf(parent: URL, own: URL): boolean {
  if (parent.origin === own.origin) return true;
  return (
    parent.hostname === own.hostname &&
    own.protocol === 'http:' &&
    parent.protocol === 'https:' &&
    usual(parent) &&
    usual(own)
  );
}

function hostMatches(wanted: string, given: string): boolean {
  if (wanted === '*') return true;
  return wanted.startsWith('*.') ? given.endsWith(wanted.slice(1)) : wanted === given;
}

const PORTS: Readonly<Record<string, string>> = { 'http:': '80', 'https:': '443' };
const portOf = (url: URL) => url.port || PORTS[url.protocol] || '';
const usual = (url: URL) => portOf(url) === PORTS[url.protocol];

function portMatches(wanted: string | undefined, scheme: string | undefined, given: URL): boolean {
  if (wanted === '*') return true;
  if (wanted === undefined) return usual(given);
  return wanted === portOf(given) || (wanted === '80' && portOf(given) === '443' && scheme !== 'https');
}

/** WHATWG HTML, 7.9 "The X-Frame-Options header": several values that disagree refuse; what is not understood does not count. */
function byFrameOptions({ frameOptions, address }: FramingAnswer, parent: string): Framing {
  const values = new Set(
    frameOptions
      .flatMap((header) => header.split(','))
      .map((value) => value.trim().toLowerCase())
      .filter(Boolean),
  );
  const refused = (value: string): Framing => ({ kind: 'refused', by: 'X-Frame-Options', value });
  const known = ['deny', 'allowall', 'sameorigin'].filter((value) => values.has(value));
  if (values.size > 1 && known.length > 0) return refused([...values].join(', ').toUpperCase());
  if (values.has('deny')) return refused('DENY');
  if (values.has('sameorigin') && new URL(address).origin !== new URL(parent).origin)
    return refused('SAMEORIGIN');
  return { kind: 'may', why: 'nothing-said' };
}

/** Whether a frame of this address inside a page of `parent` would be stopped as mixed content (W3C Mixed Content, 5). */
export function isMixedContent(address: string, parent: string): boolean {
  const url = new URL(address);
  return new URL(parent).protocol === 'https:' && url.protocol === 'http:' && !isOwnMachine(url.hostname);
}
