import { useQuery } from '@tanstack/react-query';
import * as v from 'valibot';
import type { Asset } from '#api/assets.ts';
import { type Decidable, DecisionSchema, dayIn } from '#core/rights/terms.ts';
import { meQuery } from '../api/queries.ts';
import { Box, Lines, OneOfList } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { changePiece } from '../pieces/pieces.ts';
import { useDocuments } from './documents-list.ts';
import { LabelForm } from './row.tsx';

const DECIDES: Readonly<Record<Decidable, string>> = {
  publish: 'It may be published all the same.',
  commercial: 'It may be used like this all the same.',
  changes: 'It may be changed all the same.',
  territory: 'It may be shown there all the same.',
  use: 'It may be used.',
};

interface DecisionFormProps {
  readonly asset: Asset;
  readonly about: Decidable;
  readonly targetName: string;
  readonly onDone: () => void;
}

/** What a licence leaves open is decided, with the reason and what it rests on; who did it, and when, is written down. */
export function DecisionForm({ asset, about, targetName, onDone }: DecisionFormProps) {
  const { data: me } = useQuery(meQuery);
  const documents = useDocuments(null);
  const form = useSaveForm({
    schema: v.object({ why: DecisionSchema.entries.why, document: v.string(), isHere: v.boolean() }),
    defaults: { why: '', document: '', isHere: true },
    keepAs: `decision on ${asset.id}`,
    save: async ({ why, document, isHere }) => {
      const decision = {
        about,
        target: isHere ? targetName : '',
        by: me?.name ?? '',
        on: dayIn('UTC', new Date()),
        why,
        document: document || null,
      };
      await changePiece(
        asset.id,
        { label: { decisions: [...asset.label.decisions, decision] } },
        'a decision on its rights',
      );
      onDone();
    },
  });
  return (
    <LabelForm of={form} deed="Record the decision">
      <p>{DECIDES[about]} It is written down with your name and today’s date.</p>
      <Lines of={form} name="why" label="Why" rows={3} maxLength={1000} />
      <OneOfList of={form} name="document" label="What it rests on" choices={documents} />
      <Box of={form} name="isHere">
        On the {targetName} alone
      </Box>
    </LabelForm>
  );
}
