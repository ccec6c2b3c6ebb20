import * as v from 'valibot';

const fraction = v.pipe(v.number(), v.minValue(0), v.maxValue(1));

export const CropRectSchema = v.strictObject({
  left: fraction,
  top: fraction,
  width: v.pipe(fraction, v.gtValue(0)),
  height: v.pipe(fraction, v.gtValue(0)),
});

/** What was found on a file when it came in. Each is a fact; `sayCondition` makes it a sentence. */
export const ConditionSchema = v.variant('code', [
  v.strictObject({ code: v.literal('turned') }),
  v.strictObject({ code: v.literal('drawing') }),
  v.strictObject({ code: v.literal('print-colours') }),
  v.strictObject({ code: v.literal('wide-colours'), profile: v.string() }),
  v.strictObject({ code: v.literal('unknown-colours') }),
  v.strictObject({ code: v.literal('deep-colours') }),
  v.strictObject({ code: v.literal('moves'), pictures: v.number() }),
  v.strictObject({ code: v.literal('place-of-taking') }),
  v.strictObject({ code: v.literal('metadata-unread') }),
  v.strictObject({ code: v.literal('border'), inside: CropRectSchema }),
  v.strictObject({ code: v.literal('enlarged-before') }),
  v.strictObject({ code: v.literal('compressed'), quality: v.nullable(v.number()) }),
  v.strictObject({ code: v.literal('watermarked') }),
]);
export type Condition = v.InferOutput<typeof ConditionSchema>;

/** Conditions that a person should do something about, not only know of. */
const NEEDS_A_HAND: ReadonlySet<Condition['code']> = new Set([
  'border',
  'enlarged-before',
  'compressed',
  'watermarked',
]);

export function needsHand(condition: Condition): boolean {
  return NEEDS_A_HAND.has(condition.code);
}

/** A condition as the label says it: what is so, and what becomes of it or what to do. */
export function sayCondition(condition: Condition): string {
  switch (condition.code) {
    case 'turned':
      return 'It was taken with the camera turned, and is shown upright.';
    case 'drawing':
      return 'It is a drawing, sharp at every size. Cuts of it are made as pictures.';
    case 'print-colours':
      return 'Its colours are for print (CMYK). Cuts are converted for screens (sRGB).';
    case 'wide-colours':
      return `Its colours go beyond most screens (${condition.profile}). Cuts are converted to sRGB.`;
    case 'unknown-colours':
      return 'It says that its colours are not sRGB, and has no profile to say what they are. Look at them before it goes out.';
    case 'deep-colours':
      return 'It has 16 bits a colour. Cuts have 8.';
    case 'moves':
      return `It moves: ${condition.pictures} pictures one after the other.`;
    case 'place-of-taking':
      return 'It says where it was taken. Cuts leave that out.';
    case 'metadata-unread':
      return 'What it says of itself was too much to be read, so nothing of its label is drafted from it.';
    case 'border':
      return 'A border is part of the picture.';
    case 'enlarged-before':
      return 'It holds far less detail than its size says: likely enlarged before, three times or more. Ask for the original.';
    case 'compressed':
      return 'It was compressed so hard that it shows. Ask for a better copy.';
    case 'watermarked':
      return 'It carries the agency’s mark. The original comes when it is bought.';
  }
}
