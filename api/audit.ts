import * as v from 'valibot';
import { RealDaySchema } from '#core/rights/terms.ts';

/** Deeds that have to be answered for, with how they are told after a name. */
export const AUDIT_DEEDS = {
  'signed-in': 'signed in',
  'sign-in-refused': 'was not let in',
  'signed-out': 'signed out',
  'sign-in-ended': 'signed out elsewhere',
  password: 'took a new password',
  'password-made': 'made a password for',
  'hook-secret': 'made what web hooks are signed by, for',
  person: 'changed who works here:',
  rights: 'said the rights of',
  rules: 'changed the House rules of',
  hosts: 'changed the trusted hosts:',
  sent: 'took away',
  'sent-out': 'sent',
  'taken-down': 'took down',
  pasted: 'pasted',
  planned: 'planned the sending of',
  'taken-back': 'took back what was brought in,',
  'code-seen': 'looked at the unfinished code of',
  bought: 'bought',
  replaced: 'replaced everywhere',
  'taken-off': 'had decided what is taken off',
  'thrown-away': 'threw away',
  'brought-back': 'brought back',
  removed: 'removed for good',
  clipper: 'made a clipper',
  'audit-taken': 'took the log away',
  'ledger-taken': 'took the ledger of rights away',
} as const;
export type AuditDeed = keyof typeof AUDIT_DEEDS;

export const isAuditDeed = (what: string): what is AuditDeed => Object.hasOwn(AUDIT_DEEDS, what);

const day = RealDaySchema;

/** The log's question: words in a name or subject, a deed, days from and to (both included). */
export const AuditQuerySchema = v.strictObject({
  words: v.optional(v.pipe(v.string(), v.maxLength(200))),
  what: v.optional(v.picklist(['any', ...Object.keys(AUDIT_DEEDS)])),
  from: v.optional(v.union([v.literal(''), day])),
  to: v.optional(v.union([v.literal(''), day])),
  cursor: v.optional(v.pipe(v.string(), v.regex(/^\d{1,15}$/))),
});
export type AuditQuery = v.InferOutput<typeof AuditQuerySchema>;

const AuditLineSchema = v.object({
  id: v.number(),
  at: v.string(),
  who: v.string(),
  what: v.string(),
  subject: v.string(),
  detail: v.string(),
  address: v.string(),
});
export type AuditLine = v.InferOutput<typeof AuditLineSchema>;

/** Latest first. */
export const AuditListSchema = v.object({
  lines: v.array(AuditLineSchema),
  cursor: v.nullable(v.string()),
});
