import { linksAs } from '#core/deliver/link-header.ts';
import { isPasted, WAY_SECRETS, WAY_WORDS, type WayField, type WayName } from '#core/deliver/sending.ts';
import type { HouseRules } from '#core/page/target.ts';
import { isWebAddress } from '#core/rights/web-address.ts';
import type { Context } from '../context.ts';
import { HttpProblem } from '../problem.ts';
import { bucketStore } from './bucket-store.ts';
import { tokenOf } from './credentials.ts';
import { fileSite } from './file-site.ts';
import { folderStore } from './folder-store.ts';
import { micropub } from './micropub.ts';
import { keepPublic } from './public-files.ts';
import { sftpStore } from './sftp-store.ts';
import { SendProblem, type Way } from './way.ts';
import { webdavStore } from './webdav-store.ts';

/** The way to a target, as its House rules have it. */
export async function wayOf(
  context: Context,
  targetId: string,
  rules: Pick<HouseRules, 'name' | 'sending' | 'siteAddress' | 'language'>,
  signal: AbortSignal,
): Promise<Way> {
  const way = await openWay(context, targetId, rules, signal);
  return isPasted(rules.sending) ? pastedBy(way) : way;
}

/** Files go by this way, and pages by the hands of a person. */
const pastedBy = (way: Pick<Way, 'putFile' | 'close'>): Way => ({
  ...way,
  putPage: () => Promise.resolve(null),
  find: () => Promise.resolve(null),
  takeDown: () => Promise.resolve(),
});

/** Another way is one more line here. */
async function openWay(
  context: Context,
  targetId: string,
  rules: Pick<HouseRules, 'name' | 'sending' | 'siteAddress' | 'language'>,
  signal: AbortSignal,
): Promise<Way> {
  const { sending } = rules;
  const { outbound } = context;
  const missing = missingFor(context, rules);
  if (missing !== null) throw new HttpProblem(409, missing);
  const secret = WAY_SECRETS[sending.by] === null ? '' : await tokenOf(context, targetId);
  const site = {
    publicAddress: sending.publicAddress || rules.siteAddress,
    language: rules.language,
    name: rules.name,
  };
  const { address, user, host, folder, hostKey, bucket, region } = sending;
  switch (sending.by) {
    case 'none':
      throw new HttpProblem(409, sayNoWay(rules));
    case 'paste':
      return pastedBy({ putFile: (file) => keepPublic(context, file, new Date()) });
    case 'micropub': {
      const endpoint = address || (await endpointOf(context, rules, signal));
      return micropub({ outbound, address: endpoint, token: secret, signal });
    }
    case 'webdav':
      return fileSite(webdavStore({ outbound, address, login: { user, password: secret }, signal }), site);
    case 'sftp':
      return fileSite(sftpStore({ outbound, host, user, secret, folder, hostKey, signal }), site);
    case 'bucket':
      return fileSite(
        bucketStore({ outbound, address, bucket, region, keyId: user, secret, folder, signal }),
        site,
      );
    case 'folder':
      return fileSite(await folderStore(context.config.sitesFolder, folder), site);
  }
}

/** What House rules have to say before anything can be sent, in a sentence; null where nothing is missing. */
export function missingFor(
  { config }: Pick<Context, 'config'>,
  rules: Pick<HouseRules, 'name' | 'sending' | 'siteAddress'>,
): string | null {
  const { sending, siteAddress, name } = rules;
  if (sending.by === 'none') return sayNoWay(rules);
  if (sending.by === 'paste')
    return config.publicOrigin === null
      ? `Files of pages that are pasted are served from here, and this machine has no address for that. Whoever runs it names one (PLACARD_PUBLIC_ORIGIN).`
      : null;
  const needed = NEEDED[sending.by].find((field) => sending[field] === '');
  if (needed !== undefined)
    return `${name} is sent by ${WAY_WORDS[sending.by]}, and ${FIELD_WORDS[needed]} is not said. The site owner says it in House rules.`;
  if (sending.by !== 'micropub' && sending.publicAddress === '' && siteAddress === '')
    return `Nobody has said where readers find ${name}. The site owner says so in House rules.`;
  return null;
}

const sayNoWay = ({ name }: Pick<HouseRules, 'name'>): string =>
  `Nobody has said how pages come to ${name}. The site owner says so in House rules.`;

const NEEDED: Readonly<Record<WayName, readonly WayField[]>> = {
  none: [],
  paste: [],
  micropub: [],
  webdav: ['address', 'user'],
  sftp: ['host', 'user'],
  bucket: ['address', 'bucket', 'user'],
  folder: [],
};

const FIELD_WORDS: Readonly<Record<WayField, string>> = {
  address: 'the address',
  host: 'the host',
  user: 'the name of the house there',
  bucket: 'the bucket',
  region: 'the region',
  folder: 'the folder',
  hostKey: 'the key of the host',
  publicAddress: 'where readers find it',
};

const LIMITS = { bytes: 1_000_000, millis: 15_000 };

/** The endpoint that a site names (Micropub, 4.1): in a `Link` header, else in a `link` at its head. */
async function endpointOf(
  { outbound, texts }: Context,
  { name, siteAddress }: Pick<HouseRules, 'name' | 'siteAddress'>,
  signal: AbortSignal,
): Promise<string> {
  const { address, headers, every, bytes } = await outbound.probe(siteAddress, { limits: LIMITS, signal });
  const [named = ''] = every('link').flatMap((header) => linksAs('micropub', header));
  const html = /html/.test(headers['content-type'] ?? '') ? bytes.toString('utf8') : '';
  const [linked = ''] = named || !html ? [] : await texts.linkedAs({ html, relation: 'micropub' }, signal);
  const found = named || linked;
  const whole = found !== '' && URL.canParse(found, address) ? new URL(found, address).href : '';
  if (isWebAddress(whole)) return whole;
  throw new SendProblem(
    `${name} does not say where it takes pages by Micropub. Give the address in House rules. Nothing was sent.`,
  );
}
