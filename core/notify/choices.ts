import * as v from 'valibot';

/**
 * What a person may be told of: an errand that somebody gave them; something new that waits for them or for anybody; work of
 * their own that failed or halted; a page that does not stand where it was sent as it was sent, or a plan that came to nothing.
 */
export const MATTERS = ['given', 'errand', 'failure', 'sent'] as const;
export type Matter = (typeof MATTERS)[number];

export const MATTER_WORDS: Readonly<Record<Matter, string>> = {
  given: 'Somebody gives you an errand',
  errand: 'Something new waits on the Desk',
  failure: 'Work that you began fails or halts',
  sent: 'A page that is out stands otherwise there, or a plan comes to nothing',
};

/** The ways by which a person is told. */
export const MESSAGE_WAYS = ['mail', 'hook'] as const;
export type MessageWay = (typeof MESSAGE_WAYS)[number];

const MattersSchema = v.pipe(
  v.array(v.picklist(MATTERS)),
  v.transform((matters) => MATTERS.filter((matter) => matters.includes(matter))),
);

const ZoneSchema = v.pipe(
  v.string(),
  v.maxLength(60),
  v.check(isZone, 'This is no time zone of the IANA database, such as Europe/London.'),
);

/** By web hooks, to an address that the person names; left empty, nothing is told to one. */
const HookAddressSchema = v.pipe(
  v.string(),
  v.trim(),
  v.maxLength(500, 'At most 500 letters fit here.'),
  v.check(
    (text) => text === '' || isPlainWebAddress(text),
    'A web address without a name or password in it, such as https://hooks.example.org/placard.',
  ),
);

/** What a person chose to be told, by each way. */
export const MessageChoicesSchema = v.strictObject({
  mail: v.strictObject({
    matters: MattersSchema,
    /** As it comes, or all that is new each morning. */
    when: v.picklist(['soon', 'morning']),
    /** Whose morning: a name of the IANA time zone database. */
    zone: ZoneSchema,
  }),
  hook: v.strictObject({ matters: MattersSchema, address: HookAddressSchema }),
});
export type MessageChoices = v.InferOutput<typeof MessageChoicesSchema>;

/** Nobody is told anything that they did not ask for. */
export const TOLD_NOTHING: MessageChoices = {
  mail: { matters: [], when: 'soon', zone: 'UTC' },
  hook: { matters: [], address: '' },
};

/** What is told by a way; nothing by a web hook that leads nowhere. */
export function mattersBy({ mail, hook }: MessageChoices, way: MessageWay): readonly Matter[] {
  if (way === 'mail') return mail.matters;
  return hook.address === '' ? [] : hook.matters;
}

function isZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat('en-GB', { timeZone: name });
    return true;
  } catch {
    return false;
  }
}

function isPlainWebAddress(text: string): boolean {
  if (!URL.canParse(text)) return false;
  const { protocol, username, password } = new URL(text);
  return /^https?:$/.test(protocol) && username === '' && password === '';
}
