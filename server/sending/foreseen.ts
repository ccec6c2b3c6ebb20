import type { Foreseen } from '#api/deliveries.ts';
import type { Person } from '#api/people.ts';
import { isLost } from '#core/deliver/compare.ts';
import { sayDifference } from '#core/deliver/say.ts';
import { htmlFor } from '#core/deliver/sending.ts';
import { escapeHtml } from '#core/page/escape.ts';
import { headTitleOf } from '#core/page/page-head.ts';
import { writeFragment } from '#core/page/write.ts';
import type { WriteContext } from '#core/page/write-context.ts';
import type { Context } from '../context.ts';
import { foreseenPath, signedAddress } from '../media/addresses.ts';
import { outgoing } from '../pages/proof.ts';
import { readPage, type WholePage } from '../pages/store.ts';
import { measuredBy, ourDocument } from './shown.ts';

/** What would become of a page if it was sent as it is now, as far as its target's filter is known. */
export async function foreseePage(
  context: Context,
  pageId: string,
  person: Person,
  signal: AbortSignal,
  target?: string,
): Promise<Foreseen> {
  const whole = await readPage(context, pageId, person, target);
  const { rules } = whole;
  const title = titleOf(whole);
  const { differences } = await context.texts.foreseen(
    {
      sent: `<h1>${escapeHtml(title)}</h1>\n${writtenFor(whole, outgoing(whole))}`,
      title,
      language: rules.language,
      filter: rules.sending.filter,
    },
    signal,
  );
  const frame = (which: 'sent' | 'found') =>
    signedAddress(
      context,
      foreseenPath(whole.row, { readerId: person.id, targetId: whole.targetId }, which),
      'look',
    );
  return {
    differences: differences.map((difference) => ({
      code: difference.code,
      isLost: isLost(difference),
      ...sayDifference(difference),
      spot: difference.spot,
    })),
    frames: { sent: frame('sent'), found: frame('found') },
  };
}

const titleOf = ({ doc }: Pick<WholePage, 'doc'>): string => headTitleOf(doc) || 'Untitled page';

/** A page as its target is sent it, with the addresses that `going` gives its files. */
const writtenFor = ({ doc, rules }: WholePage, going: WriteContext): string =>
  htmlFor(rules.sending, writeFragment(doc, { ...going, isInline: true, withoutTitle: true }));

/** A page as it would be sent now, or as it would stand there, to be looked at. */
export async function foreseenDocument(
  context: Context,
  whole: WholePage,
  previewed: WriteContext,
  which: 'sent' | 'found',
): Promise<string> {
  const sent = writtenFor(whole, previewed);
  const { language, sending } = whole.rules;
  const title = titleOf(whole);
  const html =
    which === 'sent'
      ? sent
      : (await context.texts.foreseen({ sent, title, language, filter: sending.filter })).html;
  return ourDocument(
    context,
    whole,
    { title, html, base: context.config.mediaOrigin },
    measuredBy(context, '/measure.js'),
  );
}
