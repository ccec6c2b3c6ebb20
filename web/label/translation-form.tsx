import type { Asset } from '#api/assets.ts';
import { isPicture } from '#core/page/piece.ts';
import { type Translation, TranslationSchema } from '#core/rights/label.ts';
import { callLanguage } from '#core/words/language.ts';
import { Line, Lines, OneOfList } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { changePiece } from '../pieces/pieces.ts';
import { Button } from '../ui/button.tsx';
import { LongDescription } from './long-description.tsx';
import { OFFERED_LANGUAGES } from './offered-languages.ts';
import { LabelForm } from './row.tsx';

interface TranslationFormProps {
  readonly asset: Asset;
  /** The language to say it in, or null to choose one. */
  readonly language: string | null;
  /** The one that is wanted first: that of the page it is placed on. */
  readonly first: string;
  readonly onDone: () => void;
}

/** The words of a piece in one more language; what is left empty there stays as the piece says it. */
export function TranslationForm({ asset, language, first, onDone }: TranslationFormProps) {
  const { translations } = asset.label;
  const said = translations.find((one) => one.language === language);
  const free = offered(asset, first);
  const save = async (next: readonly Translation[], name: string) => {
    await changePiece(asset.id, { label: { translations: [...next] } }, name);
    onDone();
  };
  const others = (of: string) => translations.filter((one) => one.language !== of);
  const form = useSaveForm({
    schema: TranslationSchema,
    defaults: said ?? {
      language: free[0] ?? '',
      title: '',
      alt: '',
      caption: '',
      extendedDescription: '',
    },
    refusedAt: 'title',
    keepAs: `words of ${asset.id} in ${language ?? 'another language'}`,
    save: (one) => save([...others(one.language), one], `its ${callLanguage(one.language)} words`),
  });
  const saysAlt = isPicture(asset) && asset.label.alt.kind !== 'decorative';
  return (
    <LabelForm of={form} deed="Save words">
      {language === null ? (
        <OneOfList
          of={form}
          name="language"
          label="Language"
          choices={free.map((tag) => [tag, callLanguage(tag)] as const)}
        />
      ) : null}
      <Line of={form} name="title" label="Title" maxLength={300} placeholder={asset.label.title} />
      {saysAlt ? (
        <Lines
          of={form}
          name="alt"
          label="Alt text"
          hint="What it shows, in a plain sentence."
          maxLength={1000}
        />
      ) : null}
      <Lines of={form} name="caption" label="Caption" maxLength={5000} />
      {isPicture(asset) ? <LongDescription of={form} name="extendedDescription" /> : null}
      {said ? (
        <Button
          kind="link"
          className="min-h-6 justify-self-start text-sm"
          onClick={() => void save(others(said.language), `no ${callLanguage(said.language)} words`)}
        >
          Remove the {callLanguage(said.language)} words
        </Button>
      ) : null}
    </LabelForm>
  );
}

/** The languages it is not said in yet, that of the page before the others. */
function offered(asset: Asset, first: string): readonly string[] {
  const known = new Set(asset.label.translations.map(({ language }) => language));
  const all = OFFERED_LANGUAGES.filter((tag) => !known.has(tag)).sort((one, other) =>
    callLanguage(one).localeCompare(callLanguage(other)),
  );
  return all.includes(first) ? [first, ...all.filter((tag) => tag !== first)] : all;
}
