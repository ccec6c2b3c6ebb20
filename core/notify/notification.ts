import * as v from 'valibot';
import { MATTERS, type Matter } from './choices.ts';

/** Something that a person is told: one sentence, why, and where it is done. */
export const NotificationSchema = v.object({
  matter: v.picklist(MATTERS),
  sentence: v.string(),
  detail: v.string(),
  /** Where it is done, from the root of Placard. */
  path: v.string(),
});
export type Notification = v.InferOutput<typeof NotificationSchema>;

/** A notification that is known again by its key, so that nobody is told twice. */
export interface KeyedNotification extends Notification {
  readonly key: string;
}

/** What an errand says, in parts. */
interface SaidErrand {
  readonly id: string;
  readonly kind: string;
  readonly before: string;
  readonly subject: string;
  readonly after: string;
  readonly detail: string;
  readonly address: string;
  readonly given: {
    readonly to: { readonly id: string };
    readonly by: { readonly name: string };
    readonly note: string;
    readonly at: string;
  } | null;
}

/** Runs and purchases that halted are work of the person's own. */
const isOwnWork = ({ id, kind }: SaidErrand) => kind === 'run' || id.startsWith('purchase-');

/** An errand of the Desk as one of its readers is told of it; null where it was given to somebody else. */
export function ofErrand(errand: SaidErrand, personId: string): KeyedNotification | null {
  const { id, given, detail, address: path } = errand;
  const sentence = sayErrand(errand);
  if (given !== null && given.to.id !== personId) return null;
  if (given !== null) {
    const note = given.note === '' ? '' : `${given.by.name} writes: “${given.note}” `;
    return {
      key: `given ${id} ${given.at}`,
      matter: 'given',
      sentence: `${given.by.name} gives you an errand: ${sentence}`,
      detail: `${note}${detail}`,
      path,
    };
  }
  const matter: Matter = isOwnWork(errand) ? 'failure' : errand.kind === 'sent' ? 'sent' : 'errand';
  return { key: id, matter, sentence, detail, path };
}

function sayErrand({ kind, before, subject, after }: SaidErrand): string {
  const named = kind === 'handed-in' ? subject : `“${subject}”`;
  return [before, named, after].filter(Boolean).join(' ');
}

/** Work that came to nothing. */
export function ofFailure(job: {
  readonly id: string;
  readonly title: string;
  readonly words: string;
  readonly path: string;
}): KeyedNotification {
  return {
    key: `job ${job.id}`,
    matter: 'failure',
    sentence: `“${job.title}” failed.`,
    detail: job.words,
    path: job.path,
  };
}
