import { articleOf, leadOf, teaserOf, teaserRatio } from '../../page/lead.ts';
import { placementsOf } from '../../page/walk.ts';
import type { Found } from '../finding.ts';
import type { ProofInput } from '../input.ts';

/** What is shown in one of two places alone: the lead of the article, and the picture of its teaser in a listing. */
export function checkLead({ page, pieces, rules }: ProofInput): readonly Found[] {
  const lead = leadOf(page);
  const teaser = teaserOf(page);
  const isShown = (asset: string | undefined) => asset !== undefined && pieces.has(asset);
  const leads = isShown(lead?.asset);
  const teases = isShown(teaser?.content[0]?.attrs.asset);
  if (leads && !teases) {
    const remedies = lead
      ? [{ kind: 'make-teaser', placementId: lead.id, ratio: teaserRatio(rules) } as const]
      : [];
    return [{ code: 'teaser-missing', values: {}, place: { kind: 'page' }, remedies }];
  }
  if (!teases || leads || !teaser) return [];
  const first = placementsOf(articleOf(page)).find(({ asset }) => isShown(asset));
  return [
    {
      code: 'lead-missing',
      values: {},
      place: { kind: 'block', blockId: teaser.attrs.id },
      remedies: first ? [{ kind: 'make-lead', placementId: first.id }] : [],
    },
  ];
}
