import * as v from 'valibot';
import { type FoundPicture, FoundPictureSchema } from '#api/gather.ts';
import type { Context } from '../context.ts';
import { HttpProblem } from '../problem.ts';

const TAKE = 'take:';

/** A found picture under a seal: what a source said cannot be changed between being found and being taken. */
export function sealOf(context: Context, picture: FoundPicture): string {
  const text = Buffer.from(JSON.stringify(picture)).toString('base64url');
  return `${text}.${context.signatures.sign(TAKE + text)}`;
}

/** The picture under a seal. Throws an HttpProblem for one that was not made here. */
export function openSeal(context: Context, seal: string): FoundPicture {
  const [text = '', signature = ''] = seal.split('.');
  if (!context.signatures.isSigned(TAKE + text, signature))
    throw new HttpProblem(
      422,
      'This result was not found here. Ask again, and take it from the fresh answer.',
    );
  return v.parse(FoundPictureSchema, JSON.parse(Buffer.from(text, 'base64url').toString('utf8')));
}
