import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Asset } from '#api/assets.ts';
import { may } from '#api/people.ts';
import { AS_IT_CAME, type Cuttable, type Prep, recipeForRatio } from '#core/media/recipe.ts';
import { changesOf } from '#core/media/recipe-says.ts';
import type { CutPreset, HouseRules } from '#core/page/target.ts';
import { copyAt, type Judgement, judge } from '#core/rights/judgement.ts';
import { sayJudgement } from '#core/rights/say-judgement.ts';
import { dayIn } from '#core/rights/terms.ts';
import { meQuery } from '../api/queries.ts';
import { DecisionForm } from '../label/decision-form.tsx';
import { LabelRow, OpenRow } from '../label/row.tsx';
import { Button } from '../ui/button.tsx';
import type { Keep } from './prep-change.ts';

/** Whether a piece may be used today as a cut makes it. */
export function judgeCut(
  asset: Asset,
  piece: Cuttable,
  rules: HouseRules,
  preset: CutPreset | null,
): Judgement {
  return judge(
    asset.label,
    copyAt(rules, changesOf(recipeForRatio(piece, preset?.ratio ?? null)), dayIn(rules.timeZone, new Date())),
    asset.drafted.includes('licence'),
  );
}

interface RightsOfCutProps {
  readonly asset: Asset;
  readonly prep: Prep;
  readonly rules: HouseRules;
  readonly judgement: Judgement;
  readonly isEditable: boolean;
  readonly onKeep: Keep;
}

/** Whether it may be cut and changed like this; where its licence forbids it, the two ways out. */
export function RightsOfCut({ asset, prep, rules, judgement, isEditable, onKeep }: RightsOfCutProps) {
  const { data: me } = useQuery(meQuery);
  const [isDeciding, setDeciding] = useState(false);
  const forbids = judgement.reasons.some(({ code }) => code === 'no-changes');
  const whole: Prep = { ...AS_IT_CAME, quality: prep.quality };
  const isPrepared = JSON.stringify(whole) !== JSON.stringify(prep);
  const mayDecide = isEditable && me ? may(me.role, 'decide-rights') : false;
  return (
    <LabelRow
      name="Rights"
      form={
        isDeciding && forbids ? (
          <DecisionForm
            asset={asset}
            about="changes"
            targetName={rules.name}
            onDone={() => setDeciding(false)}
          />
        ) : null
      }
    >
      <p className={judgement.verdict === 'allowed' ? '' : 'text-due'}>{sayJudgement(judgement)}</p>
      {forbids && isEditable ? (
        <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
          {isPrepared ? (
            <Button onClick={() => onKeep(whole, 'leaving it whole and as it is')}>
              Leave it whole and as it is
            </Button>
          ) : (
            <p className="text-soft">On a page it is placed whole, or fitted whole into the shape.</p>
          )}
          {mayDecide ? (
            <OpenRow
              words="Decide it all the same"
              isWhole
              state={{ isOpen: isDeciding, isEditable, onToggle: () => setDeciding(!isDeciding) }}
            />
          ) : (
            <p className="text-soft">Or the rights keeper decides it.</p>
          )}
        </div>
      ) : null}
    </LabelRow>
  );
}
