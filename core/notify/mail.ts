import type { Notification } from './notification.ts';

/** More than these are not read in a mail; the Desk has them all. */
const MOST_LISTED = 30;
/** RFC 5322, 2.1.1: no line over 78 letters is shown whole everywhere; what a subject begins with is what is read in a list. */
const SUBJECT_LETTERS = 70;

interface Mail {
  readonly subject: string;
  /** Plain text (RFC 3676 is not used: lines are as long as their sentences). */
  readonly text: string;
}

/** What is told by one mail. `origin` is where people work, as `https://placard.example.org`. */
export function mailOf(notifications: readonly Notification[], origin: string): Mail {
  const [first] = notifications;
  const isOne = notifications.length === 1;
  const listed = notifications.slice(0, MOST_LISTED);
  const more = notifications.length - listed.length;
  const parts = listed.map(({ sentence, detail, path }) =>
    [sentence, detail, `${origin}${path}`].filter(Boolean).join('\n'),
  );
  if (more > 0) parts.push(`And ${more} more, on the Desk:\n${origin}/`);
  parts.push(`--\nPlacard told you because you asked it to. What it tells you is chosen here:\n${origin}/me`);
  return {
    subject: isOne && first ? shortened(first.sentence) : `${notifications.length} things wait for you`,
    text: `${parts.join('\n\n')}\n`,
  };
}

function shortened(sentence: string): string {
  const line = sentence.replace(/\s+/g, ' ');
  if (line.length <= SUBJECT_LETTERS) return line;
  const cut = line.slice(0, SUBJECT_LETTERS - 1);
  const space = cut.lastIndexOf(' ');
  return `${space > SUBJECT_LETTERS / 2 ? cut.slice(0, space) : cut}…`;
}
