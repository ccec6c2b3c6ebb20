import { trueShapeRows } from '#core/media/rows.ts';
import type { Block, PageDoc } from '#core/page/model.ts';
import { examplePiece, examplePlacement, PLAIN_RULES, paragraph } from '#core/page/testing.ts';
import { writeFragment } from '#core/page/write.ts';
import { proofPage } from '#core/proof/proof.ts';
import { seeded } from '../demo/painter/random.ts';
import { median, millis, say } from './measure.ts';

const MANY = 100_000;

/** What core computes while a person waits. */
export async function benchCore(): Promise<void> {
  const blocks = Array.from({ length: 300 }, (_, at): Block[] => [
    paragraph('You hear them long before you see one: a note like breath across the neck of a bottle.'),
    {
      type: 'placement',
      attrs: examplePlacement(at % 2 === 0 ? 'beside-left' : 'column', {
        id: `p${at}`,
        ratio: { across: 3, down: 2 },
      }),
    },
  ]).flat();
  const page: PageDoc = { title: 'Many', wants: [], tray: [], blocks };
  const pieces = new Map([['heron', examplePiece()]]);
  const write = () => writeFragment(page, { rules: PLAIN_RULES, pieces, addressOf: (cut) => cut.fileName });
  const html = write();
  const proof = await median(() => proofPage({ page, rules: PLAIN_RULES, pieces, html }));
  say('proof of a page of 300 placements (aim: under 50 ms)', millis(proof));
  say('writing the HTML of that page', millis(await median(write)));
  const random = seeded(1);
  const aspects = Array.from({ length: MANY }, () => random.between(0.5, 2.8));
  say('laying out rows of 100,000 pieces', millis(await median(() => trueShapeRows(aspects, 900, 150, 10))));
}
