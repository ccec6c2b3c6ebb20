import { hash, verify } from '@node-rs/argon2';
import { HttpProblem } from '../problem.ts';
import { COMMON } from './common-passwords.ts';

/** OWASP "Password Storage": argon2id with 19 MiB, two passes, one lane. */
const COST = { memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;

export function hashPassword(password: string): Promise<string> {
  return hash(password, COST);
}

/** A hash of nothing anybody knows, so that an unknown address takes as long to refuse as a wrong password. */
const NOBODY = hashPassword(crypto.randomUUID());

export async function isPasswordOf(passwordHash: string | undefined, password: string): Promise<boolean> {
  const isRight = await verify(passwordHash ?? (await NOBODY), password);
  return isRight && passwordHash !== undefined;
}

/**
 * Refuses what is guessed first (NIST SP 800-63B, 3.1.1.2): common passwords, one's own name and address, one letter or
 * row of keys again and again. Compared without case, blanks and signs, which guessers try by themselves.
 */
export function assertGoodPassword(
  password: string,
  { name, email }: { readonly name: string; readonly email: string },
): void {
  const plain = bare(password);
  const own = [email, name, ...email.split(/[@.]/), ...name.split(/\s+/), 'placard']
    .map(bare)
    .filter((word) => word.length > 2)
    .sort((one, other) => other.length - one.length);
  const rest = own.reduce((left, word) => left.replaceAll(word, ''), plain).replace(/\d+/g, '');
  if (rest.length < 4 && rest !== plain)
    throw new HttpProblem(
      422,
      'This password is your own name or address. Take another one. Nothing was changed.',
    );
  if (isCommon(plain) || isCommon(plain.replace(/\d+$/, '')) || isRepeated(plain))
    throw new HttpProblem(
      422,
      'This password is among the first that are guessed. Four words that do not belong together make a good one. Nothing was changed.',
    );
}

const bare = (text: string) => text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '');

/** Whether it is one short piece again and again, or a row of keys or letters. */
function isRepeated(plain: string): boolean {
  if (/^(.{1,6})\1+.{0,5}$/u.test(plain)) return true;
  return ROWS.some((row) => (row + row).includes(plain) || reversed(row + row).includes(plain));
}

const ROWS = [
  'abcdefghijklmnopqrstuvwxyz',
  '01234567890123456789',
  'qwertyuiopasdfghjklzxcvbnm',
  'qwertzuiopasdfghjklyxcvbnm',
  '1234567890qwertyuiop',
  '1q2w3e4r5t6y7u8i9o0p',
  '1qaz2wsx3edc4rfv5tgb6yhn',
];
const reversed = (text: string) => [...text].reverse().join('');

/** Whether it is made of nothing but the words and numbers that lists of broken passwords are made of. */
function isCommon(plain: string): boolean {
  let left = plain;
  for (const word of COMMON) left = left.replaceAll(word, '');
  return left.replace(/\d+/g, '').length < 3;
}
