import * as v from 'valibot';
import type { Sender } from '#core/deliver/sending.ts';
import type { Label } from '#core/rights/label.ts';
import { NewTargetSchema } from './targets.ts';

export const ROLES = ['editor', 'rights-keeper', 'site-owner', 'contributor'] as const;
export type Role = (typeof ROLES)[number];

export const ROLE_WORDS: Readonly<Record<Role, string>> = {
  editor: 'Editor',
  'rights-keeper': 'Rights keeper',
  'site-owner': 'Site owner',
  contributor: 'Contributor',
};

/** Those of a role and all who decide more, as who may send pages. */
export const SENDER_WORDS: Readonly<Record<Sender, string>> = {
  editor: 'everybody who writes pages',
  'rights-keeper': 'rights keepers and site owners',
  'site-owner': 'site owners alone',
};

/** What a person may do. `decide-rights` is allowing what a licence or statement by itself does not; `hand-in` is adding own pieces and saying what they are; `gather`, taking from elsewhere. */
const PERMISSIONS = [
  'hand-in',
  'gather',
  'say-rights',
  'decide-rights',
  'edit-pages',
  'take-away',
  'set-rules',
] as const;
export type Permission = (typeof PERMISSIONS)[number];

const DEEDS_OF: Readonly<Record<Role, readonly Permission[]>> = {
  editor: ['hand-in', 'gather', 'say-rights', 'edit-pages', 'take-away'],
  'rights-keeper': ['hand-in', 'gather', 'say-rights', 'decide-rights', 'edit-pages', 'take-away'],
  'site-owner': ['hand-in', 'gather', 'say-rights', 'decide-rights', 'edit-pages', 'take-away', 'set-rules'],
  contributor: ['hand-in'],
};

/** Each deed after "your role does not let you". */
export const PERMISSION_WORDS: Readonly<Record<Permission, string>> = {
  'hand-in': 'hand pieces in',
  gather: 'gather from other places',
  'say-rights': 'say what may be done with a piece',
  'decide-rights': 'decide what a licence leaves open',
  'edit-pages': 'change pages',
  'take-away': 'take pages away or send them',
  'set-rules': 'change the house rules',
};

export function may(role: Role, deed: Permission): boolean {
  return DEEDS_OF[role].includes(deed);
}

/**
 * Whether a person may say what a piece is and throw it away: any, who says what may be done with pieces, and their own
 * otherwise. By ID, since two people may have one name.
 */
export function mayChangePiece(
  { id, role }: Readonly<{ id: string; role: Role }>,
  createdById: string,
): boolean {
  return may(role, 'say-rights') || id === createdById;
}

/**
 * Whether a person may see a piece at all: everybody of the house does, but for one that only a group may see. Who decides on
 * rights answers for each.
 */
export function maySeePiece(
  { id, role }: Reader,
  { label, createdById }: { readonly label: Pick<Label, 'terms'>; readonly createdById: string },
): boolean {
  const { seenBy } = label.terms;
  return (
    seenBy.who !== 'group' || may(role, 'decide-rights') || id === createdById || seenBy.people.includes(id)
  );
}

/** Somebody who looks at pieces. */
export type Reader = Readonly<Pick<Person, 'id' | 'role'>>;

const EmailSchema = v.pipe(
  v.string(),
  v.trim(),
  v.toLowerCase(),
  v.email('An e-mail address has an @ in it.'),
  v.maxLength(200),
);
const NameSchema = v.pipe(v.string(), v.trim(), v.minLength(1, 'Say the name.'), v.maxLength(100));

/** NIST SP 800-63B, 3.1.1: length is what counts; no rules on which letters. */
export const LEAST_PASSWORD = 12;
const NewPasswordSchema = v.pipe(
  v.string(),
  v.minLength(
    LEAST_PASSWORD,
    `A password has at least ${LEAST_PASSWORD} letters. Four words make a good one.`,
  ),
  v.maxLength(200),
);

export const SignInSchema = v.strictObject({
  email: EmailSchema,
  password: v.pipe(v.string(), v.minLength(1, 'Give your password.'), v.maxLength(200)),
});

export const PersonSchema = v.object({
  id: v.string(),
  name: v.string(),
  email: v.string(),
  role: v.picklist(ROLES),
  /** The password was made for them: a new one is taken before anything else. */
  mustChange: v.boolean(),
});
export type Person = v.InferOutput<typeof PersonSchema>;

/** A person as the site owner sees them. `left` signs in no more. */
export const ColleagueSchema = v.object({
  id: v.string(),
  name: v.string(),
  email: v.string(),
  role: v.picklist(ROLES),
  left: v.boolean(),
});
export type Colleague = v.InferOutput<typeof ColleagueSchema>;

/** Those who work here, by name, for whoever names them on a label. */
export const NamedPeopleSchema = v.array(
  v.object({ id: v.string(), name: v.string(), role: v.picklist(ROLES) }),
);

/** One of a person's own sign-ins. `address` is the network's, `agent` what the browser calls itself. */
const OwnSessionSchema = v.object({
  key: v.string(),
  isThis: v.boolean(),
  signedInAt: v.string(),
  seenAt: v.string(),
  address: v.string(),
  agent: v.string(),
});
export type OwnSession = v.InferOutput<typeof OwnSessionSchema>;
export const OwnSessionsSchema = v.array(OwnSessionSchema);

/** Whether nobody works here yet, so that the first person can begin. */
export const BeginningSchema = v.object({ isOpen: v.boolean() });

/** The first person and the first target of an empty house. `code` was printed where Placard was started. */
export const BeginSchema = v.strictObject({
  code: v.pipe(v.string(), v.trim(), v.maxLength(60)),
  name: NameSchema,
  email: EmailSchema,
  password: NewPasswordSchema,
  target: NewTargetSchema,
});

export const NewPersonSchema = v.strictObject({
  name: NameSchema,
  email: EmailSchema,
  role: v.picklist(ROLES),
});
export const ChangePersonSchema = v.strictObject({
  role: v.optional(v.picklist(ROLES)),
  left: v.optional(v.boolean()),
});

/** A password made here, to be handed over; it is shown this once. */
export const MadePasswordSchema = v.object({ person: ColleagueSchema, password: v.string() });
export type MadePassword = v.InferOutput<typeof MadePasswordSchema>;

export const ChangePasswordSchema = v.strictObject({
  now: v.pipe(v.string(), v.minLength(1, 'Give the password that you have now.'), v.maxLength(200)),
  next: NewPasswordSchema,
});

/** A made-up person of the demo, whom the sign-in screen offers. */
export const DemoPersonSchema = v.object({ name: v.string(), email: v.string(), role: v.string() });
