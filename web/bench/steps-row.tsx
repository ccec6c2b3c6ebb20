import { AS_IT_CAME, type Prep, type PrepStep } from '#core/media/recipe.ts';
import { stepsOf } from '#core/media/recipe-says.ts';
import { sayTone } from '#core/media/tone.ts';
import { LabelRow } from '../label/row.tsx';
import { Button } from '../ui/button.tsx';
import { Checkbox } from '../ui/checkbox.tsx';
import type { Change, Keep } from './prep-change.ts';

interface StepsProps {
  readonly prep: Prep;
  readonly isEditable: boolean;
  readonly change: Change;
  readonly onKeep: Keep;
}

const UNDO_WORDS: Readonly<Record<PrepStep, string>> = {
  turn: 'Undo turn',
  straighten: 'Undo straightening',
  crop: 'Undo crop',
  frames: 'Undo frames',
  tone: 'Undo tone',
  sharpness: 'Undo sharpening',
  backgroundColour: 'Undo background',
  words: 'Undo words over it',
};

/** What is done, as sentences; each can be switched off without being forgotten. */
export function StepsRow({ prep, isEditable, change, onKeep }: StepsProps) {
  const steps = stepsOf(prep, sayTone);
  const [only, others] = steps;
  const flip = (step: PrepStep, isOn: boolean) =>
    change(
      {
        disabledSteps: isOn
          ? prep.disabledSteps.filter((one) => one !== step)
          : [...prep.disabledSteps, step],
      },
      isOn ? 'switching a step on' : 'switching a step off',
    );
  return (
    <LabelRow name="Steps">
      {steps.length === 0 ? (
        <p className="text-soft">Nothing is done to it. The original stays as it is.</p>
      ) : null}
      {steps.map(({ step, says }) => (
        <Checkbox
          key={step}
          disabled={!isEditable}
          checked={!prep.disabledSteps.includes(step)}
          onChange={(isOn) => flip(step, isOn)}
        >
          {says}
        </Checkbox>
      ))}
      {steps.length > 0 && isEditable ? (
        <Button kind="link" onClick={() => onKeep(AS_IT_CAME, 'reverting to the original')}>
          {only && !others ? UNDO_WORDS[only.step] : 'Revert to the original'}
        </Button>
      ) : null}
    </LabelRow>
  );
}
