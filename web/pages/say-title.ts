import { callLanguage } from '#core/words/language.ts';

/** What a page is called on screen: its title, or that it has none yet. */
export const sayPageTitle = (title: string): string => title || 'Untitled page';

/** What a page is for: its target, and its language where that is another than the target's. */
export const sayFor = ({
  targetName,
  language,
}: {
  readonly targetName: string;
  readonly language: string | null;
}): string => (language === null ? targetName : `${targetName}, ${callLanguage(language)}`);
