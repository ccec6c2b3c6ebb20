import { createTransport } from 'nodemailer';
import * as v from 'valibot';
import { mailOf } from '#core/notify/mail.ts';
import type { Notification } from '#core/notify/notification.ts';
import type { Context } from '../context.ts';
import { NotTold } from './not-told.ts';

const CONNECT_MILLIS = 10_000;
const SILENT_MILLIS = 20_000;

/**
 * Sends one mail by the house's mail host (RFC 6409). The same `id` sent again, as after a process was killed, is
 * known again by mailboxes as the same mail (RFC 5322, 3.6.4). Throws NotTold.
 */
export async function sendMail(
  { config }: Pick<Context, 'config'>,
  to: { readonly name: string; readonly email: string },
  notifications: readonly Notification[],
  id: string,
): Promise<void> {
  if (!config.mail)
    throw new NotTold('This house has no host for its mail. Whoever runs Placard names one by PLACARD_MAIL.');
  const { address, from } = config.mail;
  const transport = createTransport({
    url: address,
    connectionTimeout: CONNECT_MILLIS,
    greetingTimeout: CONNECT_MILLIS,
    socketTimeout: SILENT_MILLIS,
    disableFileAccess: true,
    disableUrlAccess: true,
  });
  try {
    await transport.sendMail({
      ...mailOf(notifications, config.appOrigin),
      from: { name: 'Placard', address: from },
      to: { name: to.name, address: to.email },
      messageId: `<${id}@${from.slice(from.lastIndexOf('@') + 1)}>`,
      // RFC 3834, 5: so that nobody’s absence answers it.
      headers: { 'Auto-Submitted': 'auto-generated' },
    });
  } catch (error) {
    throw notTaken(error, to.email);
  } finally {
    transport.close();
  }
}

const MailFaultSchema = v.object({
  code: v.optional(v.string(), ''),
  response: v.optional(v.string(), ''),
  responseCode: v.optional(v.number(), 0),
});

/** At most these of what a mail host says are repeated. */
const SAID_LETTERS = 200;

function notTaken(error: unknown, email: string): NotTold {
  const read = v.safeParse(MailFaultSchema, error);
  const { code, response, responseCode } = read.success ? read.output : v.parse(MailFaultSchema, {});
  const said = response.replace(/\s+/g, ' ').slice(0, SAID_LETTERS);
  const because = said === '' ? '' : ` It says: “${said}”`;
  if (code === 'EAUTH')
    return new NotTold(
      `The mail host does not take the name and password of the house.${because} Whoever runs Placard looks at PLACARD_MAIL.`,
      { cause: error },
    );
  if (code === 'EENVELOPE' && responseCode >= 500)
    return new NotTold(`The mail host takes no mail for ${email}.${because}`, {
      isFinal: true,
      cause: error,
    });
  if (responseCode >= 400) return new NotTold(`The mail host did not take it.${because}`, { cause: error });
  return new NotTold('The mail host does not answer.', { cause: error });
}
