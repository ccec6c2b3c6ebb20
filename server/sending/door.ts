import { linksAs } from '#core/deliver/link-header.ts';
import type { HouseRules } from '#core/page/target.ts';
import { isWebAddress } from '#core/rights/web-address.ts';
import type { Context } from '../context.ts';
import { HttpProblem } from '../problem.ts';
import { tokenOf } from './credentials.ts';
import { micropub } from './micropub.ts';
import { SendProblem, type Way } from './way.ts';

/** The way to a target, as its House rules have it: another way is one more line here. */
export async function wayOf(
  context: Context,
  targetId: string,
  rules: Pick<HouseRules, 'name' | 'sending' | 'siteAddress'>,
  signal: AbortSignal,
): Promise<Way> {
  const { by, address } = rules.sending;
  if (by === 'none')
    throw new HttpProblem(
      409,
      `Nobody has said how pages come to ${rules.name}. The site owner says so in House rules.`,
    );
  const token = await tokenOf(context, targetId);
  const { outbound } = context;
  const endpoint = address || (await endpointOf(context, rules, signal));
  return micropub({ outbound, address: endpoint, token, signal });
}

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
