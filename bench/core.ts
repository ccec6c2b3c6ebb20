import { trueShapeRows } from '#core/media/rows.ts';
import type { Block } from '#core/page/blocks/block.ts';
import { shownWidth } from '#core/page/layout.ts';
import { mergePages } from '#core/page/merge.ts';
import type { PageDoc } from '#core/page/model.ts';
import { readBrought } from '#core/page/read-brought.ts';
import { readSource } from '#core/page/source/read.ts';
import { writeSource } from '#core/page/source/write.ts';
import {
  A_DAY,
  examplePiece,
  examplePlacement,
  htmlTree,
  PLAIN_RULES,
  paragraph,
  placed,
} from '#core/page/testing.ts';
import { standingsOf } from '#core/page/walk.ts';
import { writeFragment } from '#core/page/write.ts';
import { proofInput } from '#core/proof/input.ts';
import { proofPage } from '#core/proof/proof.ts';
import { seeded } from '../demo/painter/random.ts';
import { median, millis, say } from './measure.ts';

const MANY = 100_000;
const WORDS = 'You hear them long before you see one: a note like breath across the neck of a bottle.';

const PASTED_STYLES = 'p.Normal {margin:0cm 0cm 8pt; font-size:11.0pt; font-family:"Fenland",sans-serif;}';
/** Paragraphs as word processors write them, with marks and a style of their own. */
const PASTED = `<p class="Normal" style="line-height:107%"><span lang="EN-GB" style="font-size:11.0pt;color:black">${WORDS} <b>Boots</b> are <span style="color:#C00000">needed</span>.</span></p>
`;

const longPage = (added: (at: number) => string): PageDoc => ({
  title: 'Long',
  wants: [],
  tray: [],
  blocks: Array.from({ length: 5000 }, (_, at) => paragraph(`${WORDS}${added(at)}`, `text-${at}`)),
});

/** What core computes while a person waits. */
export async function benchCore(): Promise<void> {
  const blocks = Array.from({ length: 300 }, (_, at): Block[] => [
    paragraph(WORDS, `text-${at}`),
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
  const input = proofInput(page, PLAIN_RULES, pieces, A_DAY);
  const proof = await median(() => proofPage({ ...input }));
  say('proof of a page of 300 placements (aim: under 50 ms)', millis(proof));
  say('writing the HTML of that page', millis(await median(write)));
  const [mine, theirs] = [7, 5].map((nth) => longPage((at) => (at % nth === 0 ? ` Changed by ${nth}.` : '')));
  if (mine && theirs) {
    const base = longPage(() => '');
    const merge = await median(() => mergePages(base, mine, theirs));
    say('putting two changes of 5,000 blocks together (aim: under 100 ms)', millis(merge));
  }
  const pasted = PASTED.repeat(Math.ceil(1_000_000 / PASTED.length));
  const tree = htmlTree(pasted);
  say(
    'reading 1 MB of a word processor, parsed (aim: under 300 ms)',
    millis(await median(() => readBrought(tree, PASTED_STYLES, () => 'id'))),
  );
  const thousand = Array.from({ length: 1000 }, (_, at) =>
    placed(examplePlacement(at % 2 === 0 ? 'beside-left' : 'column', { id: `q${at}` })),
  );
  const layout = () =>
    standingsOf({ blocks: thousand }, { rules: PLAIN_RULES, pieces }).flatMap(({ placement, room }) =>
      PLAIN_RULES.proofWidths.map((viewport) => shownWidth(PLAIN_RULES, placement, room, viewport)),
    );
  say('laying out 1,000 placements at three widths (aim: under 30 ms)', millis(await median(layout)));
  const source = writeSource(page, { rules: PLAIN_RULES, pieces }).text;
  const readBack = () => readSource(htmlTree(source), page, { rules: PLAIN_RULES, pieces }, () => 'id');
  say('parsing and reading the source of a page of 300 placements', millis(await median(readBack)));
  const random = seeded(1);
  const aspects = Array.from({ length: MANY }, () => random.between(0.5, 2.8));
  say('laying out rows of 100,000 pieces', millis(await median(() => trueShapeRows(aspects, 900, 150, 10))));
}
