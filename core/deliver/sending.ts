import * as v from 'valibot';
import { WebAddressSchema } from '../rights/web-address.ts';
import { type Filter, FilterSchema, KEEPS_ALL, plainerFor } from './filter.ts';

/**
 * How pages come to a target: not at all by themselves; pasted there by hand, with files that Placard itself serves; by Micropub (W3C
 * Recommendation, 23 May 2017), or as files where its site lies: by WebDAV (RFC 4918), SFTP, into a bucket that speaks S3, or into a
 * folder of this machine.
 */
export const WAYS = ['none', 'paste', 'micropub', 'webdav', 'sftp', 'bucket', 'folder'] as const;
export type WayName = (typeof WAYS)[number];

export const WAY_WORDS: Readonly<Record<WayName, string>> = {
  none: 'Taken away by hand',
  paste: 'Pasted, its files served from here',
  micropub: 'Micropub',
  webdav: 'WebDAV',
  sftp: 'SFTP',
  bucket: 'A bucket (S3)',
  folder: 'A folder of this machine',
};

/** What has to be said of each way besides what opens it. */
export const WAY_FIELDS = {
  none: [],
  paste: [],
  micropub: ['address'],
  webdav: ['address', 'user', 'publicAddress'],
  sftp: ['host', 'user', 'folder', 'hostKey', 'publicAddress'],
  bucket: ['address', 'bucket', 'region', 'user', 'folder', 'publicAddress'],
  folder: ['folder', 'publicAddress'],
} as const satisfies Readonly<Record<WayName, readonly (keyof Sending)[]>>;
export type WayField = (typeof WAY_FIELDS)[WayName][number];

/** What opens each way, in a word; null where nothing has to. */
export const WAY_SECRETS: Readonly<Record<WayName, string | null>> = {
  none: null,
  paste: null,
  micropub: 'token',
  webdav: 'password',
  sftp: 'password or private key',
  bucket: 'secret key',
  folder: null,
};

/** Whose role is the least that may send pages of a target, in their order. */
export const SENDERS = ['editor', 'rights-keeper', 'site-owner'] as const;
export type Sender = (typeof SENDERS)[number];

/** Whether somebody of a role may send pages where these may: whoever decides more may too, and whoever writes no pages never. */
export const maySend = (senders: Sender, role: string): boolean =>
  SENDERS.slice(SENDERS.indexOf(senders)).some((one) => one === role);

const said = (most: number) => v.optional(v.pipe(v.string(), v.trim(), v.maxLength(most)), '');

/** A way within a place: no step up, and none from its root. */
const FolderSchema = v.optional(
  v.pipe(
    v.string(),
    v.trim(),
    v.maxLength(300),
    v.check(
      (path) => !/(?:^|\/)\.\.(?:\/|$)|\\|\p{Cc}/u.test(path),
      'A folder is written as news/pages, without steps up.',
    ),
  ),
  '',
);

/** How pages are sent to a target, and what has to be written otherwise so that it survives there. */
export const SendingSchema = v.strictObject({
  by: v.picklist(WAYS),
  /** Where pages are taken; for Micropub the empty text asks the site itself, which names it at its head. */
  address: WebAddressSchema,
  /** A host by its name, with its port where that is another than usual. */
  host: v.optional(
    v.pipe(
      v.string(),
      v.trim(),
      v.maxLength(260),
      v.regex(
        /^(?:[a-z0-9.-]{1,253}(?::\d{1,5})?)?$/i,
        'A host is written as files.example.org or files.example.org:2222.',
      ),
    ),
    '',
  ),
  /** Under which name the house is known there; for a bucket the ID of its key. */
  user: said(200),
  bucket: said(100),
  region: said(60),
  /** In which folder there, or below the folder that this machine has for sites. */
  folder: FolderSchema,
  /** By what the host is known (SHA-256 of its key, as `ssh-keygen -l` says it). */
  hostKey: said(100),
  /** Where readers find what lies there; the empty text is the address of the site. */
  publicAddress: v.optional(WebAddressSchema, ''),
  /** Who may send its pages, plan that, and take them down. */
  senders: v.optional(v.picklist(SENDERS), 'editor'),
  /** Where its listing is; the empty text is the address of the site, which may list nothing. */
  listing: v.optional(WebAddressSchema, ''),
  /** Whether pages go by the same way as their files, or are pasted there by hand. */
  pages: v.optional(v.picklist(['sent', 'pasted']), 'sent'),
  /** Whether captions go as HTML has them (`figcaption`), or as plain text for a site that drops those. */
  captions: v.picklist(['figcaption', 'plain']),
  /** Whether what text runs beside is the figure, or the picture itself for a site that keeps no figures. */
  sides: v.optional(v.picklist(['figure', 'picture']), 'figure'),
  /** What the site does not keep, as a probe has shown or its people say. */
  filter: v.optional(FilterSchema, KEEPS_ALL),
});
export type Sending = v.InferOutput<typeof SendingSchema>;

export const NOT_SENT: Sending = {
  by: 'none',
  address: '',
  host: '',
  user: '',
  bucket: '',
  region: '',
  folder: '',
  hostKey: '',
  publicAddress: '',
  senders: 'editor',
  listing: '',
  pages: 'sent',
  captions: 'figcaption',
  sides: 'figure',
  filter: KEEPS_ALL,
};

/** Whether only the files of a page go there, and its code is pasted by hand. */
export const isPasted = ({ by, pages }: Pick<Sending, 'by' | 'pages'>): boolean =>
  by === 'paste' || (by !== 'none' && pages === 'pasted');

/**
 * The HTML of a page, which is our own and has its styles in it, as this target keeps it. A caption in plain text is a `div`: what it
 * holds may be folded away, which no paragraph may hold.
 */
export function htmlFor(
  { captions, sides, filter }: Pick<Sending, 'captions' | 'sides' | 'filter'>,
  html: string,
): string {
  const sided = sides === 'figure' ? html : html.split(BEFORE_FIGURE).map(sideOnPicture).join('');
  const captioned = captions === 'figcaption' ? sided : sided.replace(/<(\/?)figcaption\b/g, '<$1div');
  return plainerFor(captioned, filter);
}

/** How pages are written for a site from then on that a probe has shown not to keep everything. */
export function writtenFor(sending: Sending, filter: Filter): Sending {
  const isLost = (name: string) => filter.unwrapped.includes(name) || filter.dropped.includes(name);
  const says = (element: string) =>
    !isLost(element) &&
    !['style', `${element} style`].some((one) => filter.attributes.includes(one)) &&
    !['float', `${element} float`].some((one) => filter.styles.includes(one));
  return {
    ...sending,
    filter,
    captions: filter.dropped.includes('figcaption') ? 'plain' : sending.captions,
    sides: !says('figure') && says('img') ? 'picture' : sending.sides,
  };
}

const BEFORE_FIGURE = /(?=<figure\b)/;
const FLOATING = /^(<figure\b[^>]*?) style="(float:[^"]*)"/;
const OF_PICTURE = /(<img\b[^>]*?) style="[^"]*"/;

/** From one figure up to the next: its side, width and margins on its picture, which is as wide as it otherwise. */
function sideOnPicture(html: string): string {
  const [, head = '', side = ''] = FLOATING.exec(html) ?? [];
  if (side === '' || !OF_PICTURE.test(html)) return html;
  const picture = `$1 style="${side};height:auto"`;
  return html.replace(FLOATING, head).replace(OF_PICTURE, picture);
}
