import { hash, verify } from '@node-rs/argon2';

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
