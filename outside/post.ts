import { Router } from 'express';
import { SMTPServer } from 'smtp-server';
import { escapeHtml, htmlPage } from './html.ts';
import { moodOf } from './misbehave.ts';

/** The name of the host whose mood is that of the mail host. */
const HOST = 'post.localhost';
const MOST_KEPT = 200;
const MOST_BYTES = 1_000_000;

interface KeptMail {
  readonly to: readonly string[];
  /** As it came: head and body. */
  readonly raw: string;
}

const kept: KeptMail[] = [];

/** A mail host (RFC 5321): takes what anybody sends it, and shows it at a web page. */
export function mailHost(): SMTPServer {
  return new SMTPServer({
    disabledCommands: ['AUTH', 'STARTTLS'],
    size: MOST_BYTES,
    onRcptTo: (_address, _session, done) => done(refusal()),
    onData: (stream, { envelope }, done) => {
      const parts: Buffer[] = [];
      stream.on('data', (part: Buffer) => parts.push(part));
      stream.on('end', () => {
        kept.unshift({
          to: envelope.rcptTo.map(({ address }) => address),
          raw: Buffer.concat(parts).toString('utf8'),
        });
        kept.splice(MOST_KEPT);
        done();
      });
    },
  });
}

/** In a bad mood it takes no mail, for now or for good. */
function refusal(): Error | null {
  switch (moodOf(HOST)) {
    case 'busy':
      return answered(451, 'Come back later');
    case 'forbidden':
      return answered(550, 'Nobody of this name is here');
    default:
      return null;
  }
}

const answered = (responseCode: number, words: string) => Object.assign(new Error(words), { responseCode });

/** What came, newest first: as a page for people, and as JSON. */
export function post(): Router {
  const router = Router();
  router.get('/', (_request, response) => {
    const letters = kept.map(
      (mail) =>
        `<article><h2>${escapeHtml(fieldOf(mail, 'subject'))}</h2><p>To ${escapeHtml(mail.to.join(', '))}, ${escapeHtml(fieldOf(mail, 'date'))}</p><pre style="white-space:pre-wrap">${escapeHtml(textOf(mail))}</pre></article>`,
    );
    response.type('html').send(htmlPage('Post', letters.join('<hr>') || '<p>Nothing has come yet.</p>'));
  });
  router.get('/mails.json', (_request, response) => {
    response.json(
      kept.map((mail) => ({
        to: mail.to,
        subject: fieldOf(mail, 'subject'),
        messageId: fieldOf(mail, 'message-id'),
        text: textOf(mail),
      })),
    );
  });
  return router;
}

/** A field of the head, unfolded (RFC 5322, 2.2.3), its words decoded (RFC 2047). */
function fieldOf({ raw }: KeptMail, name: string): string {
  const [head = ''] = raw.split('\r\n\r\n', 1);
  const line = head
    .replace(/\r\n[ \t]/g, ' ')
    .split('\r\n')
    .find((one) => one.toLowerCase().startsWith(`${name}:`));
  return (line ?? '')
    .slice(name.length + 1)
    .trim()
    .replace(/\?=\s+=\?/g, '?==?')
    .replace(/=\?utf-8\?([qb])\?([^?]*)\?=/gi, (_all, how: string, word: string) =>
      how.toLowerCase() === 'b'
        ? Buffer.from(word, 'base64').toString('utf8')
        : unquoted(word.replaceAll('_', ' ')),
    );
}

function textOf(mail: KeptMail): string {
  const body = mail.raw.slice(mail.raw.indexOf('\r\n\r\n') + 4);
  switch (fieldOf(mail, 'content-transfer-encoding').toLowerCase()) {
    case 'base64':
      return Buffer.from(body, 'base64').toString('utf8');
    case 'quoted-printable':
      return unquoted(body.replace(/=\r\n/g, ''));
    default:
      return body;
  }
}

/** Quoted-printable (RFC 2045, 6.7). */
const unquoted = (text: string): string =>
  Buffer.from(
    text.replace(/=([0-9A-F]{2})/gi, (_all, hex: string) => String.fromCharCode(Number.parseInt(hex, 16))),
    'latin1',
  ).toString('utf8');
