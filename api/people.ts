import * as v from 'valibot';

export const ROLES = ['editor', 'rights-keeper', 'site-owner', 'contributor'] as const;
export type Role = (typeof ROLES)[number];

export const ROLE_WORDS: Readonly<Record<Role, string>> = {
  editor: 'Editor',
  'rights-keeper': 'Rights keeper',
  'site-owner': 'Site owner',
  contributor: 'Contributor',
};

/** What a person may do. `hand-in` is adding own pieces and saying what they are; `gather`, taking from elsewhere. */
const DEEDS = ['hand-in', 'gather', 'say-rights', 'edit-pages', 'take-away', 'set-rules'] as const;
export type Deed = (typeof DEEDS)[number];

const DEEDS_OF: Readonly<Record<Role, readonly Deed[]>> = {
  editor: ['hand-in', 'gather', 'say-rights', 'edit-pages', 'take-away'],
  'rights-keeper': ['hand-in', 'gather', 'say-rights', 'edit-pages', 'take-away'],
  'site-owner': ['hand-in', 'gather', 'say-rights', 'edit-pages', 'take-away', 'set-rules'],
  contributor: ['hand-in'],
};

export function may(role: Role, deed: Deed): boolean {
  return DEEDS_OF[role].includes(deed);
}

export const SignInSchema = v.strictObject({
  email: v.pipe(v.string(), v.trim(), v.email('An e-mail address has an @ in it.'), v.maxLength(200)),
  password: v.pipe(v.string(), v.minLength(1, 'Give your password.'), v.maxLength(200)),
});

export const PersonSchema = v.strictObject({
  id: v.string(),
  name: v.string(),
  email: v.string(),
  role: v.picklist(ROLES),
});
export type Person = v.InferOutput<typeof PersonSchema>;
