import { useWatch } from 'react-hook-form';
import * as v from 'valibot';
import type { Asset } from '#api/assets.ts';
import { messagesFor } from '#core/messages/messages.ts';
import type { HouseRules } from '#core/page/target.ts';
import { creditedAs } from '#core/page/words.ts';
import { creditParts } from '#core/rights/attribution.ts';
import { creditFacts, creditOf, creditText } from '#core/rights/credit.ts';
import { creditWordsIn, readCreditWords, sayCreditParts } from '#core/rights/credit-words.ts';
import type { Judgement } from '#core/rights/judgement.ts';
import type { Label } from '#core/rights/label.ts';
import { labelIn } from '#core/rights/label-in.ts';
import { Lines } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { changePiece, pieceOf } from '../pieces/pieces.ts';
import { Button } from '../ui/button.tsx';
import { LabelForm } from './row.tsx';

interface CreditFormProps {
  readonly asset: Asset;
  readonly rules: HouseRules;
  readonly judgement: Judgement;
  readonly onDone: () => void;
}

const CreditSchema = v.object({
  text: v.pipe(v.string(), v.trim(), v.maxLength(300, 'At most 300 letters fit here.')),
});

/** The credit in somebody's own words: what it names of the label follows the label, and what it leaves out is said as it is typed. */
export function CreditForm({ asset, rules, judgement: ofUse, onDone }: CreditFormProps) {
  const label = labelIn(asset.label, rules.language);
  const messages = messagesFor(rules.language);
  // What was changed is told where it is owed, whatever the words are.
  const judgement = { ...ofUse, changes: [], duties: ofUse.duties.filter((duty) => duty !== 'say-changes') };
  const place = {
    made: creditedAs(pieceOf(asset)),
    messages,
    language: rules.language,
    form: 'full',
  } as const;
  const facts = creditFacts(label, creditParts(label, judgement, messages));
  const read = (text: string) => readCreditWords(text.trim(), facts);
  const own = creditWordsIn(asset.label.creditWords, rules.language);
  const others = asset.label.creditWords.filter((one) => one !== own);
  const keep = async (creditWords: Label['creditWords']) => {
    await changePiece(asset.id, { label: { creditWords } }, 'its credit');
    onDone();
  };
  const form = useSaveForm({
    schema: CreditSchema,
    defaults: { text: creditText(creditOf(label, judgement, place)) },
    keepAs: `credit of ${asset.id}`,
    save: ({ text }) =>
      keep(text === '' ? others : [...others, { language: rules.language, runs: read(text) }]),
  });
  const typed = useWatch({ control: form.form.control, name: 'text' });
  const runs = read(typed ?? '');
  const named = runs.flatMap((run) => (run.kind === 'part' ? run.part : []));
  const { leftOut } = creditOf(
    { ...label, creditWords: [{ language: rules.language, runs }] },
    judgement,
    place,
  );
  return (
    <LabelForm of={form} deed="Save credit">
      <Lines of={form} name="text" label="Credit" rows={3} maxLength={300} />
      <p className="text-soft" role="status">
        {named.length > 0
          ? `Follows the label: ${sayCreditParts(named)}.`
          : 'Nothing in it follows the label.'}
      </p>
      {leftOut.length > 0 ? (
        <p className="text-due">It leaves out {sayCreditParts(leftOut)}, which the licence asks for.</p>
      ) : null}
      <p className="text-soft">What was changed is added where it is owed.</p>
      {own ? (
        <Button kind="link" onClick={() => void keep(others)}>
          Write it by the licence again
        </Button>
      ) : null}
    </LabelForm>
  );
}
