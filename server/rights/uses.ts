import { inArray } from 'drizzle-orm';
import type { JudgedUse } from '#api/rights.ts';
import { judgeOnPage } from '#core/page/judge-page.ts';
import { usesOf } from '#core/page/linked.ts';
import { sayJudgement } from '#core/rights/say-judgement.ts';
import type { Context } from '../context.ts';
import { pages } from '../db/schema.ts';
import { readPagesWith } from '../pages/store.ts';
import { isOut } from './ledger.ts';

/** Every page on which a piece stands, with whether it may stand there as it does, today. */
export async function judgedUses(context: Context, assetId: string, now: Date): Promise<JudgedUse[]> {
  const { wholes } = await readPagesWith(context, assetId);
  if (wholes.length === 0) return [];
  const out = await context.db
    .select({ id: pages.id, isOut: isOut() })
    .from(pages)
    .where(
      inArray(
        pages.id,
        wholes.map(({ row }) => row.id),
      ),
    );
  const gone = new Set(out.flatMap((page) => (page.isOut ? [page.id] : [])));
  return wholes.flatMap(({ row, rules, doc, pieces }) => {
    const piece = pieces.get(assetId);
    if (!piece) return [];
    const judgement = judgeOnPage(rules, doc, piece, now);
    return [
      {
        pageId: row.id,
        title: row.title,
        target: rules.name,
        isOut: gone.has(row.id),
        verdict: judgement.verdict,
        says: sayJudgement(judgement),
        placements: usesOf(doc).filter(({ asset }) => asset === assetId),
      },
    ];
  });
}
