import * as v from 'valibot';
import { MESSAGE_WAYS, MessageChoicesSchema } from '#core/notify/choices.ts';

const MESSAGE_STATES = ['waiting', 'sent', 'failed'] as const;

/** What a person was told or will be, newest first. */
const MessageSchema = v.object({
  id: v.string(),
  way: v.picklist(MESSAGE_WAYS),
  sentence: v.string(),
  path: v.string(),
  state: v.picklist(MESSAGE_STATES),
  /** When it was told, or is to be. */
  at: v.string(),
  /** Why it could not be told, or not yet. */
  words: v.string(),
});

export const OwnMessagesSchema = v.object({
  choices: MessageChoicesSchema,
  /** Whether the house has a host that takes its mail. */
  canMail: v.boolean(),
  /** Whether there is something to sign web hooks by. */
  hasHookSecret: v.boolean(),
  recent: v.array(MessageSchema),
});
export type OwnMessages = v.InferOutput<typeof OwnMessagesSchema>;

/** By what web hooks are signed: shown this once. */
export const HookSecretSchema = v.object({ secret: v.string() });

export const MessageTrialSchema = v.strictObject({ way: v.picklist(MESSAGE_WAYS) });
