import { messagesFor } from '../messages/messages.ts';
import type { Messages } from '../messages/table.ts';
import { escapeHtml } from '../page/escape.ts';
import { oneLine } from '../words/one-line.ts';
import type { EmbedForm } from './forms.ts';
import { entryById, type HostEntry, type Hosts } from './host.ts';
import type { Embed } from './model.ts';
import { sayTime } from './parameters.ts';
import type { Permission, SandboxToken } from './permissions.ts';
import { settingsOf } from './settings.ts';
import type { EmbedTarget } from './target.ts';

/** A picture that stands for an embed until it is opened. Sizes in px. */
interface Poster {
  readonly address: string;
  readonly width: number;
  readonly height: number;
  /** The picture as HTML, where there is more of it than one file; it says nothing by itself. */
  readonly html?: string;
}

export interface WriteCase {
  readonly embed: Embed;
  readonly target: EmbedTarget;
  readonly hosts: Hosts;
  readonly poster: Poster | null;
}

/**
 * The HTML of an embed in one form, written from the typed model and from nothing else (WHATWG HTML: `iframe`, `video`,
 * `audio`, `a`). Every value is escaped, every address was read into https before; no handler and no script is ever
 * written but the one of a widget, in a sandboxed document of its own.
 */
export function writeEmbed(form: EmbedForm, of: WriteCase): string {
  switch (form) {
    case 'click':
      return writeClick(of);
    case 'frame':
      return writeFrame(of, false);
    case 'widget':
      return writeWidget(of);
    case 'player':
      return writePlayer(of);
    case 'poster':
      return of.poster
        ? `<a class="embed-card" href="${escapeHtml(of.embed.page)}">${writePoster(of.poster)}<span>${escapeHtml(invitation(of))}</span></a>`
        : writeLink(of);
    case 'link':
      return writeLink(of);
  }
}

/** The permissions and the openings of the sandbox that a frame gets: what its host's entry needs, and what somebody allowed. */
interface Grants {
  readonly allow: readonly Permission[];
  readonly sandbox: readonly SandboxToken[];
}

/** For a host without an entry, that somebody decided to trust: its scripts under its own address, and nothing else. */
const UNKNOWN_SANDBOX: readonly SandboxToken[] = ['allow-scripts', 'allow-same-origin'];

export function grantsOf({ embed, target, hosts }: Omit<WriteCase, 'poster'>, startsOnClick = false): Grants {
  const entry = entryById(embed.host, hosts);
  const allow = new Set<Permission>([...(entry?.allow ?? []), ...embed.allowed]);
  if (startsOnClick || startsByItself(embed, hosts)) allow.add('autoplay');
  // A frame of the page's own origin that runs scripts could take its own sandbox away (HTML, the sandbox attribute).
  const isOwn = new URL(embed.address).origin === originOf(target.siteAddress);
  const sandbox = (entry?.sandbox ?? UNKNOWN_SANDBOX).filter(
    (token) => !(isOwn && token === 'allow-same-origin'),
  );
  return { allow: [...allow].sort(), sandbox };
}

function startsByItself(embed: Embed, hosts: Hosts): boolean {
  const autoplay = settingsOf(embed, hosts).find(({ role }) => role === 'autoplay');
  return autoplay?.type === 'switch' && embed.parameters[autoplay.name] === autoplay.on;
}

function originOf(address: string): string {
  return URL.canParse(address) ? new URL(address).origin : '';
}

/**
 * The framed address with its parameters: those of the entry in its order, or of no entry in their own, then those that
 * were kept. What is called `#…` stands in the fragment.
 */
export function frameAddress(embed: Embed, hosts: Hosts, startsOnClick = false): string {
  const entry = entryById(embed.host, hosts);
  const values = new Map<string, string>();
  const names = entry ? entry.parameters.map(({ name }) => name) : Object.keys(embed.parameters);
  for (const name of names) {
    const value = embed.parameters[name];
    if (value !== undefined) values.set(name, value);
  }
  const autoplay = startsOnClick
    ? settingsOf(embed, hosts).find(({ role }) => role === 'autoplay')
    : undefined;
  if (autoplay?.type === 'switch') values.set(autoplay.name, autoplay.on);
  for (const [name, value] of Object.entries(embed.kept)) values.set(name, value);
  return withValues(embed.address, values);
}

function withValues(address: string, values: ReadonlyMap<string, string>): string {
  const url = new URL(address);
  const written = [...values].filter(([name]) => !name.startsWith('#'));
  if (written.length > 0) {
    const before = [...url.searchParams].filter(([name]) => !values.has(name));
    url.search = [...before, ...written]
      .map(([name, value]) => `${inQuery(name)}=${inQuery(value)}`)
      .join('&');
  }
  const [part] = [...values].filter(([name]) => name.startsWith('#'));
  if (part) url.hash = `${part[0]}=${inQuery(part[1])}`;
  return url.href;
}

/** As the URL standard lets a query stand, with commas, colons and slashes as they are read. */
function inQuery(text: string): string {
  return encodeURIComponent(text.replace(/\p{Cs}/gu, '')).replace(
    /%(?:2C|3A|2F|40|21|3B|24|2A)/g,
    decodeURIComponent,
  );
}

function writeFrame(of: WriteCase, startsOnClick: boolean): string {
  const { embed, hosts } = of;
  const entry = entryById(embed.host, hosts);
  const { allow, sandbox } = grantsOf(of, startsOnClick);
  const tellsHeight =
    entry?.heightMessage && embed.shape.kind === 'height'
      ? ` data-height="${escapeHtml(entry.heightMessage)}"`
      : '';
  const policy = allow.length > 0 ? ` allow="${allow.join('; ')}"` : '';
  // What is asked for by a click is wanted at once.
  const loading = startsOnClick ? '' : ' loading="lazy"';
  return `<iframe title="${escapeHtml(titleOf(embed, entry, messagesFor(of.target.language)))}" src="${escapeHtml(frameAddress(embed, hosts, startsOnClick))}"${writeSize(of)}${loading}${policy} sandbox="${sandbox.join(' ')}" referrerpolicy="strict-origin-when-cross-origin"${tellsHeight}></iframe>`;
}

/**
 * What a screen reader says before the frame: what somebody said, or what the host calls it, never nothing. In the words
 * of the language of the page.
 */
export function titleOf(embed: Embed, entry: HostEntry | undefined, messages: Messages): string {
  if (embed.title !== '') return oneLine(embed.title);
  if (embed.facts.title !== '') return `${messages.made[embed.kind]}: ${oneLine(embed.facts.title)}`;
  return messages.embedOf(embed.kind, entry?.name ?? new URL(embed.address).host);
}

/**
 * Size in attributes for the first layout, and in style so that it keeps its shape at any width without a jump; a block,
 * since under a frame in a line stands the room of that line's descenders.
 */
function writeSize({ embed, target }: WriteCase): string {
  const { shape } = embed;
  const height = heightAt(embed, target.column);
  const style =
    shape.kind === 'ratio'
      ? `display: block; aspect-ratio: ${shape.across} / ${shape.down}; width: 100%; height: auto; border: 0`
      : `display: block; width: 100%; height: ${shape.px}px; border: 0`;
  return ` width="${target.column}" height="${height}" style="${style}"`;
}

/** The height in px that an embed takes at a width in px. */
export function heightAt({ shape }: Pick<Embed, 'shape'>, width: number): number {
  return shape.kind === 'ratio' ? Math.max(1, Math.round((width * shape.down) / shape.across)) : shape.px;
}

/**
 * A poster that links to the thing, and the frame in a template beside it. The script of the target puts the frame in its
 * place when it is clicked; where that is stripped, it is a link.
 */
function writeClick(of: WriteCase): string {
  const { embed, poster } = of;
  const { shape } = embed;
  const ratio =
    shape.kind === 'ratio' ? `aspect-ratio: ${shape.across} / ${shape.down}` : `height: ${shape.px}px`;
  const picture = poster ? writePoster(poster) : '';
  return `<div class="embed-click" style="${ratio}"><a href="${escapeHtml(embed.page)}">${picture}<span>${escapeHtml(invitation(of))}</span></a><template>${writeFrame(of, true)}</template></div>`;
}

/** The poster says nothing that the words beside it do not say. */
function writePoster({ address, width, height, html }: Poster): string {
  if (html) return html;
  return `<img src="${escapeHtml(address)}" width="${width}" height="${height}" alt="" loading="lazy" decoding="async">`;
}

/** Only the host's own script and its files get into the document, and nothing of it gets out of the sandbox. */
function writeWidget(of: WriteCase): string {
  const { embed, hosts } = of;
  const entry = entryById(embed.host, hosts);
  if (!entry?.widget) return writeLink(of);
  const { widget, origin } = entry;
  const policy = `default-src 'none'; script-src ${origin}; style-src 'unsafe-inline' ${origin}; img-src ${origin} data:; font-src ${origin}; connect-src ${origin}; media-src ${origin}; form-action 'none'; base-uri 'none'`;
  const words = escapeHtml(titleOf(embed, entry, messagesFor(of.target.language)));
  const inside = `<!DOCTYPE html><meta charset="utf-8"><meta http-equiv="Content-Security-Policy" content="${escapeHtml(policy)}"><title>${words}</title><blockquote class="${escapeHtml(widget.className)}" ${widget.attribute}="${escapeHtml(embed.page)}"><a href="${escapeHtml(embed.page)}" target="_blank" rel="noopener">${words}</a></blockquote><script src="${escapeHtml(origin + widget.script)}" async></script>`;
  const sandbox = ['allow-scripts', ...entry.sandbox].filter(
    (token, at, all) => token !== 'allow-same-origin' && all.indexOf(token) === at,
  );
  return `<iframe title="${words}" srcdoc="${escapeHtml(inside)}"${writeSize(of)} loading="lazy" sandbox="${sandbox.join(' ')}" referrerpolicy="strict-origin-when-cross-origin"></iframe>`;
}

function writePlayer(of: WriteCase): string {
  const { embed, poster, hosts } = of;
  const words = escapeHtml(titleOf(embed, entryById(embed.host, hosts), messagesFor(of.target.language)));
  const source = escapeHtml(frameAddress(embed, hosts));
  if (embed.carrier === 'audio')
    return `<audio controls preload="none" src="${source}" aria-label="${words}" style="width: 100%"></audio>`;
  const picture = poster ? ` poster="${escapeHtml(poster.address)}"` : '';
  return `<video controls preload="none" src="${source}" aria-label="${words}"${picture}${writeSize(of)}></video>`;
}

function writeLink(of: WriteCase): string {
  const { embed, hosts, target } = of;
  const name = entryById(embed.host, hosts)?.name ?? new URL(embed.page).host;
  const words = oneLine(embed.facts.title || embed.title) || invitation(of);
  const leadsTo = `${messagesFor(target.language).linkedAt(embed.kind, name)}${lengthOf(embed)}`;
  return `<p class="embed-link"><a href="${escapeHtml(embed.page)}">${escapeHtml(words)}</a> (${escapeHtml(leadsTo)})</p>`;
}

/** "Watch “How the eel pass works” at Lanternreel, 3:20." */
function invitation({ embed, hosts, target }: WriteCase): string {
  const name = entryById(embed.host, hosts)?.name ?? new URL(embed.page).host;
  const title = oneLine(embed.facts.title || embed.title);
  return `${messagesFor(target.language).invitation(embed.kind, title, name)}${lengthOf(embed)}`;
}

function lengthOf({ facts: { seconds } }: Embed): string {
  return seconds === null ? '' : `, ${sayTime(Math.round(seconds))}`;
}
