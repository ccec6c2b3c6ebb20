import { sayBytes } from '../media/weight.ts';
import { callLanguage } from '../words/language.ts';
import type { Difference, DifferenceCode } from './compare.ts';

interface Said {
  readonly sentence: string;
  /** Why it matters, or what was there. */
  readonly why: string;
}

type Values<C extends DifferenceCode> = Extract<Difference, { readonly code: C }>['values'];

const BY_CODE: { readonly [C in DifferenceCode]: (values: Values<C>) => Said } = {
  'picture-lost': ({ name }) => ({
    sentence: `“${short(name)}” is not there.`,
    why: 'The site took the page without this picture.',
  }),
  'picture-unanswered': ({ name, status }) => ({
    sentence: `The file of “${short(name)}” does not answer.`,
    why:
      status === 0
        ? 'Nothing comes from its address.'
        : status === 200
          ? 'What comes from its address is no picture.'
          : `Its address answers with ${status}.`,
  }),
  'alt-lost': ({ name }) => ({
    sentence: `“${short(name)}” lost its alt text.`,
    why: 'Those who cannot see it are told nothing of it.',
  }),
  'alt-differs': ({ name, found }) => ({
    sentence: `“${short(name)}” has another alt text.`,
    why: found === '' ? 'The site gave it none.' : `There it is “${short(found)}”.`,
  }),
  'size-lost': ({ name }) => ({
    sentence: `“${short(name)}” lost its width and height.`,
    why: 'The text jumps when it comes in.',
  }),
  'caption-lost': ({ caption }) => ({
    sentence: 'A caption is gone, and the credit with it.',
    why: `It said “${short(caption)}”. The site drops what HTML has for captions.`,
  }),
  'caption-loose': ({ name }) => ({
    sentence: `The caption of “${short(name)}” stands by itself.`,
    why: 'Its words are there, and no longer tied to the picture.',
  }),
  'beside-lost': ({ name }) => ({
    sentence: `Text does not run beside “${short(name)}”.`,
    why: 'The site drops the style that says so.',
  }),
  'sizes-lost': ({ name }) => ({
    sentence: `“${short(name)}” is one file for every screen.`,
    why: 'The site drops the choice among sizes, so phones load what is made for desks.',
  }),
  'frame-lost': ({ host }) => ({
    sentence: `What ${host} shows is not there.`,
    why: 'The site lets no frame of this host through.',
  }),
  'film-lost': ({ name }) => ({
    sentence: `“${short(name)}” does not play there.`,
    why: 'The site drops what HTML has for films and sound. Its poster can lead to the file, or to the film host.',
  }),
  'film-unanswered': ({ name, status }) => ({
    sentence: `A file of “${short(name)}” does not answer.`,
    why:
      status === 0
        ? 'Nothing comes from its address.'
        : status < 300
          ? 'What comes from its address is no film.'
          : `Its address answers with ${status}.`,
  }),
  'captions-lost': ({ name, languages }) => ({
    sentence: `“${short(name)}” lost its captions${languages.length === 1 ? `, ${callLanguage(languages[0] ?? '')}` : ''}.`,
    why: 'The site drops what HTML has for them: those who cannot hear it miss what is said. Its transcript stands under it.',
  }),
  'captions-unanswered': ({ name, language, status }) => ({
    sentence: `The captions of “${short(name)}” do not answer, ${callLanguage(language)}.`,
    why: status === 0 ? 'Nothing comes from their address.' : `Their address answers with ${status}.`,
  }),
  'link-lost': ({ words }) => ({
    sentence: `The link “${short(words)}” is gone.`,
    why: 'Its words lead nowhere.',
  }),
  'link-dead': ({ words, href }) => ({
    sentence: `The link “${short(words)}” leads to nothing.`,
    why: `There is nothing at ${short(href)}.`,
  }),
  'link-moved': ({ words, found }) => ({
    sentence: `What the link “${short(words)}” leads to has moved.`,
    why: `It is at ${short(found)} for good.`,
  }),
  'link-differs': ({ words, found }) => ({
    sentence: `The link “${short(words)}” leads elsewhere.`,
    why: `There it leads to ${short(found)}.`,
  }),
  'heading-lost': ({ words }) => ({
    sentence: `“${short(words)}” is no heading there.`,
    why: 'Those who go from heading to heading pass it by.',
  }),
  'heading-level': ({ words, level, found }) => ({
    sentence: `“${short(words)}” is a heading of level ${found}.`,
    why: `It was sent as one of level ${level}.`,
  }),
  'words-lost': ({ count, first }) => ({
    sentence: count === 1 ? 'A line of text is not there.' : `${count} lines of text are not there.`,
    why: `${count === 1 ? 'It is' : 'The first is'} “${short(first)}”.`,
  }),
  'title-differs': ({ title, found }) => ({
    sentence: 'The page is called otherwise.',
    why: `It was sent as “${short(title)}” and is “${short(found)}” there.`,
  }),
  'picture-smaller': ({ name, size, found }) => ({
    sentence: `The file of “${short(name)}” is smaller there.`,
    why: `It was sent as ${size} px and is ${found} px: sharp screens show it soft.`,
  }),
  'picture-reshaped': ({ name, size, found }) => ({
    sentence: `“${short(name)}” has another shape there.`,
    why: `It was sent as ${size} px and is ${found} px, so that it is cut or stretched.`,
  }),
  'page-heavy': ({ bytes, budget }) => ({
    sentence: `The page weighs ${sayBytes(bytes)} there.`,
    why: `At first ${sayBytes(budget)} are loaded at most, as House rules say.`,
  }),
  'listing-missing': ({ title }) => ({
    sentence: 'The listing does not lead to this page.',
    why: `“${short(title)}” is not among what it shows.`,
  }),
  'listing-title': ({ title }) => ({
    sentence: 'The listing calls the page otherwise.',
    why: `It was sent as “${short(title)}”.`,
  }),
  'listing-summary': ({ summary }) => ({
    sentence: 'The listing does not show the summary.',
    why: `It was sent as “${short(summary)}”.`,
  }),
  'listing-cut': ({ last }) => ({
    sentence: 'The listing cuts the summary short.',
    why: `It ends after “${last.length > 60 ? last.slice(-60).replace(/^\S*\s/, '') : last}”.`,
  }),
  'listing-picture': ({ name }) => ({
    sentence: 'The listing shows no picture of this page.',
    why: name === '' ? 'One was sent.' : `“${short(name)}” was sent.`,
  }),
  'listing-alt': ({ found }) => ({
    sentence: 'The picture in the listing has another alt text.',
    why: found === '' ? 'It has none.' : `There it is “${short(found)}”.`,
  }),
  'language-differs': ({ language, found }) => ({
    sentence: `The page does not say that it is ${callLanguage(language)}.`,
    why:
      found === ''
        ? 'It names no language, and screen readers guess.'
        : `It says that it is ${callLanguage(found)}, and screen readers read it out as that.`,
  }),
};

/** A difference in words: what is so, and why it matters. */
export function sayDifference<C extends DifferenceCode>(difference: {
  readonly code: C;
  readonly values: Values<C>;
}): Said {
  return BY_CODE[difference.code](difference.values);
}

/** What all differences come to, as one sentence; `lost` of `all` are missed by readers. */
export function sayCompared(lost: number, all: number): string {
  if (all === 0) return 'Everything came through';
  const different = all - lost;
  const rest = `${different === 1 ? 'one thing is' : `${different} are`} only different`;
  if (lost === 0)
    return different === 1 ? 'One thing is only different' : `${different} things are only different`;
  const missed = lost === 1 ? 'One thing was lost on the way' : `${lost} things were lost on the way`;
  return different === 0 ? missed : `${missed}, ${rest}`;
}

/** The same of a page that is not sent yet. */
export function sayForeseen(lost: number, all: number): string {
  if (all === 0) return 'Everything comes through';
  if (lost === 0)
    return all === 1 ? 'One thing will only be different' : `${all} things will only be different`;
  const missed = lost === 1 ? 'One thing will be lost there' : `${lost} things will be lost there`;
  const different = all - lost;
  if (different === 0) return missed;
  return `${missed}, ${different === 1 ? 'one' : different} will only be different`;
}

const MOST_LETTERS = 80;
/** So that it can be quoted in a sentence: its own full stop goes. */
const short = (words: string): string => {
  const all = words.trim().replace(/\.$/, '');
  return all.length <= MOST_LETTERS ? all : `${all.slice(0, MOST_LETTERS).replace(/\s+\S*$/, '')}...`;
};
