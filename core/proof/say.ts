import { sayFormFault } from '../embed/forms.ts';
import { sayFilmLength } from '../film/facts.ts';
import { sayContrast } from '../media/over-contrast.ts';
import { sayBytes } from '../media/weight.ts';
import { sayNameFault } from '../naming/rule.ts';
import { sayCreditParts } from '../rights/credit-words.ts';
import { sayReason } from '../rights/say-judgement.ts';
import { sayAltFault } from '../words/alt.ts';
import { callLanguage } from '../words/language.ts';
import type { FindingCode } from './codes.ts';
import type { PlacementRemedy, Remedy } from './finding.ts';
import type { Coded, FindingValues } from './values.ts';

/** What is wrong, and why it matters or what it rests on: a sentence or two each. */
export interface Said {
  readonly sentence: string;
  readonly why: string;
}

const STANDS_IN = {
  poster: 'A linked poster stands in its place.',
  link: 'A link stands in its place.',
} as const;

const BY_CODE: { readonly [C in FindingCode]: (values: FindingValues[C]) => Said } = {
  'alt-missing': ({ name, fault }) => ({
    sentence: `${name} has no alt text yet.`,
    why:
      fault === 'missing'
        ? 'Nobody has said yet whether it is decorative or what it shows.'
        : sayAltFault(fault),
  }),
  'alt-poor': ({ name, fault }) => ({
    sentence: `The words of ${name} need another look.`,
    why: sayAltFault(fault),
  }),
  'language-differs': ({ name, words, language, ofPage }) => ({
    sentence: `The ${words === 'alt' ? 'alt text' : 'caption'} of ${name} seems to be ${callLanguage(language)}.`,
    why: `The page says that it is ${callLanguage(ofPage)}, and screen readers read everything out as that.`,
  }),
  'licence-missing': ({ name, reason }) => ({
    sentence: `The licence of ${name} is not known.`,
    why: sayReason(reason),
  }),
  'licence-claimed': ({ name, reason }) => ({
    sentence: `Nobody has kept the licence of ${name}.`,
    why: sayReason(reason),
  }),
  'credit-missing': ({ name, reason }) => ({
    sentence: `${name} owes a credit that cannot be written.`,
    why: sayReason(reason),
  }),
  'credit-leaves-out': ({ name, parts, licence }) => ({
    sentence: `The credit of ${name} leaves out ${sayCreditParts(parts)}.`,
    why: `${licence} asks for it. The credit was reworded by hand.`,
  }),
  'use-not-allowed': ({ name, reason }) => ({
    sentence: reason.code === 'comp' ? `${name} is a comp.` : `${name} may not be used like this.`,
    why: sayReason(reason),
  }),
  'piece-missing': () => ({
    sentence: 'A piece on this page is no longer on the shelf, or is kept for others of the house.',
    why: 'Its place goes out empty.',
  }),
  'want-unfilled': ({ purpose }) => ({
    sentence: `“${purpose}” is still wanted.`,
    why: 'The plan of this page asks for it, and no piece fills it.',
  }),
  enlarged: ({ name, shown, cut }) => ({
    sentence: `${name} is enlarged ${(shown / cut).toFixed(1)} times.`,
    why: `It is shown ${Math.round(shown)} px wide and has ${cut} px, so it turns soft and blocky.`,
  }),
  'enlarged-sharp': ({ name, shown, cut }) => ({
    sentence: `${name} is a little soft on sharp screens.`,
    why: `They would show ${Math.round(shown * 2)} px of it; it has ${cut}.`,
  }),
  stretched: ({ name }) => ({
    sentence: `${name} is shown in another shape than its own.`,
    why: 'Its width and height differ by over one per cent from its shape, so it looks stretched.',
  }),
  oversized: ({ name, smallest, shown }) => ({
    sentence: `${name} is sent much larger than it is shown.`,
    why: `The smallest file is ${smallest} px wide for ${Math.round(shown)} px on screen.`,
  }),
  'words-faint': ({ name, contrast, needed, hasPlate }) => ({
    sentence: `The words over ${name} hardly stand out from it.`,
    why: sayContrast(contrast, needed, hasPlate),
  }),
  'words-small': ({ name, viewport, em, readable }) => ({
    sentence: `The words over ${name} are too small to read at ${viewport} px.`,
    why: `They are drawn into the picture, and ${em.toFixed(0)} px high there. ${readable} px can be read.`,
  }),
  'words-unsaid': ({ name, text }) => ({
    sentence: `The words drawn into ${name} are not in its alt text.`,
    why: `Those who cannot see it do not learn that it says “${text}”.`,
  }),
  'embed-gone': ({ name, host, status }) => ({
    sentence: `${name} is no longer at its host.`,
    why: `${host} answered ${status}. A link there leads nowhere.`,
  }),
  'embed-private': ({ name }) => ({
    sentence: `${name} is private at its host.`,
    why: 'Readers see nothing of it. Ask for it to be opened.',
  }),
  'embed-untrusted': ({ name }) => ({
    sentence: `${name} comes from a host that nobody has decided on.`,
    why: 'It goes out as a link. The site owner can decide to trust its host.',
  }),
  'embed-refused': ({ name, by, value, standIn }) => ({
    sentence: `${name} refuses to be framed here.`,
    why: `Its host says ${by}: ${value}. ${STANDS_IN[standIn]}`,
  }),
  'embed-stripped': ({ name, fault, standIn }) => ({
    sentence: `${name} does not come through here as a frame.`,
    why: `${sayFormFault(fault)} ${STANDS_IN[standIn]}`,
  }),
  'captions-missing': ({ name }) => ({
    sentence: `${name} has no captions.`,
    why: 'Those who cannot hear it, or have the sound off, miss what is said. Ask its maker for them.',
  }),
  'captions-out-of-step': ({ name, languages }) => ({
    sentence: `The captions of ${name} say something where nothing is heard${languages.length === 1 ? `, in ${callLanguage(languages[0] ?? '')}` : ''}.`,
    why: 'They are out of step, or were made for another cut of it. Move them where it is said.',
  }),
  'film-not-made': ({ name }) => ({
    sentence: `${name} is not made yet as it is to be.`,
    why: 'What was left out of it or changed would go out as it came. It is being made; wait for it, or let it go on.',
  }),
  'film-not-played': ({ name, says }) => ({
    sentence: `${name} goes out as it came, and not every browser plays ${says}.`,
    why: 'Made for the web it plays everywhere, and weighs less.',
  }),
  'film-too-large': ({ name, bytes, seconds, mostMegabytes, mostMinutes }) => ({
    sentence: `${name} is ${sayFilmLength({ seconds })} long and weighs ${sayBytes(bytes)}.`,
    why: `Films over ${mostMinutes} minutes or ${mostMegabytes} MB belong on the film host. Its label moves it there.`,
  }),
  'dimensions-missing': ({ name }) => ({
    sentence: `${name} goes out without width and height.`,
    why: 'The text jumps when it arrives.',
  }),
  'page-heavy': ({ bytes, budget }) => ({
    sentence: `The page weighs about ${sayBytes(bytes)}, of ${sayBytes(budget)} allowed.`,
    why: 'On a slow line it takes long to arrive. Fewer or narrower pictures make it lighter.',
  }),
  'text-squeezed': ({ letters, name, other }) =>
    other === null
      ? {
          sentence: `Only ${letters} letters fit beside ${name}.`,
          why: 'The text beside it breaks into single words.',
        }
      : {
          sentence: `Only ${letters} letters fit between ${name} and ${other}.`,
          why: 'The text between them breaks into single words.',
        },
  'heading-order': ({ text, level, above }) => ({
    sentence: `“${text}” skips a heading level.`,
    why: `It is a heading ${level} under a heading ${above}. Whoever moves by headings takes something for missing.`,
  }),
  'heading-empty': () => ({
    sentence: 'A heading is empty.',
    why: 'It goes out as nothing, and whoever moves by headings expects one.',
  }),
  'details-unnamed': () => ({
    sentence: 'A folded section does not say what is in it.',
    why: 'Readers see one line of it, and open it only where that tells them why.',
  }),
  'card-alone': ({ cards, perRow }) => ({
    sentence: `Of ${cards} cards, ${perRow} in a row, the last stands alone.`,
    why: 'It looks forgotten. Another number in a row, or one card more or less, fills the rows.',
  }),
  'card-unnamed': ({ link }) => ({
    sentence: `A card that leads to ${link} says nothing.`,
    why: 'Its heading is the link. Without words nobody hears where it leads, and nobody can press it.',
  }),
  'pair-broken': ({ pictures }) => ({
    sentence: `A before-and-after has ${pictures === 1 ? 'one picture' : `${pictures} pictures`}.`,
    why: 'It is made of two: without them it goes out as plain figures.',
  }),
  'pair-shapes': () => ({
    sentence: 'The two pictures of a before-and-after are not of one shape.',
    why: 'They lie over each other, and what one has in one place the other has elsewhere.',
  }),
  'banner-broken': ({ pictures, isSaid }) => ({
    sentence: isSaid
      ? `A banner has ${pictures === 0 ? 'no picture' : pictures === 1 ? 'something else than a picture' : `${pictures} pictures`}.`
      : 'A banner says nothing.',
    why: isSaid
      ? 'It is made of one picture with words over it: otherwise they go out one below the other.'
      : 'Without words it is a picture, which can stand by itself.',
  }),
  'banner-full': () => ({
    sentence: 'The words of a banner are higher than its picture.',
    why: 'The picture is cropped to reach as far as they do. Fewer words, or a picture that is higher, keep it whole.',
  }),
  'banner-faint': ({ contrast, needed, hasPlate }) => ({
    sentence: 'The words of a banner hardly stand out.',
    why: sayContrast(contrast, needed, hasPlate),
  }),
  'lead-missing': () => ({
    sentence: 'The teaser shows a picture, and no lead does.',
    why: 'Whoever follows it from a listing expects the picture at the head of the article.',
  }),
  'teaser-missing': () => ({
    sentence: 'The page has a lead, and its teaser shows no picture.',
    why: 'In a listing it stands without one between pages that have theirs.',
  }),
  'teaser-unsaid': () => ({
    sentence: 'The teaser says nothing of the page.',
    why: 'In a listing its title stands alone.',
  }),
  'anchor-missing': ({ anchor }) => ({
    sentence: `A link leads to #${anchor}, which is not on this page.`,
    why: 'Pressed, it does nothing. The heading that it led to was changed or taken away.',
  }),
  'page-link-broken': ({ title }) => ({
    sentence:
      title === null
        ? 'A link leads to a page that is no longer there.'
        : `A link leads to “${title || 'Untitled page'}”, whose address is not known yet.`,
    why:
      title === null
        ? 'Its words go out, and the link does not.'
        : 'Its words go out, and the link does not. The label of that page takes its address on the site.',
  }),
  'file-link-broken': () => ({
    sentence: 'A link leads to a file that is no longer on the shelf.',
    why: 'Its words go out, and the link does not.',
  }),
  'contents-empty': () => ({
    sentence: 'A list of contents has nothing to list.',
    why: 'The page has no headings of these levels, and it goes out empty.',
  }),
  'table-headless': () => ({
    sentence: 'A table has no headings of its rows or columns.',
    why: 'Whoever hears it cell by cell does not know what a figure is of.',
  }),
  'quotation-unattributed': () => ({
    sentence: 'A quotation does not say whose words it is.',
    why: 'Readers cannot weigh it, and what is quoted has to name its source where that is known.',
  }),
  'title-missing': () => ({
    sentence: 'The page has no title.',
    why: 'Listings, browsers and screen readers name it by its title.',
  }),
  'link-empty': ({ page }) => ({
    sentence: 'A link has no words.',
    why: `Nobody can tell where it goes. It is on “${page || 'this page'}”.`,
  }),
  'link-vague': ({ words }) => ({
    sentence: `A link only says “${words}”.`,
    why: 'Screen readers list links without the words around them. Let the linked words say where it leads.',
  }),
  'name-rule': ({ fileName, fault }) => ({
    sentence: `The name ${fileName} breaks the rule.`,
    why: sayNameFault(fault),
  }),
  'same-piece-twice': ({ name }) => ({
    sentence: `${name} stands twice on this page.`,
    why: 'Readers may take the second for a mistake.',
  }),
  'picture-style-unknown': ({ name, style }) => ({
    sentence: `${name} has the picture style “${style}”, which this target does not have.`,
    why: 'It goes out without it. Choose one of the target’s on its label, or add it to House rules.',
  }),
};

/** A finding in words. */
export const sayFinding = (finding: Coded): Said => sayCoded(finding);

function sayCoded<C extends FindingCode>({
  code,
  values,
}: {
  readonly code: C;
  readonly values: FindingValues[C];
}): Said {
  return BY_CODE[code](values);
}

const CHANGES: Readonly<Record<Exclude<PlacementRemedy, 'narrow' | 'stack'>, string>> = {
  'own-shape': 'Give it its own shape',
  'show-whole': 'Show it whole',
  'shape-of-first': 'Cut the second as the first',
  'frame-at-once': 'Show its frame at once, without a poster',
  'link-in-words': 'Link to it in words, without a poster',
  third: 'Make it a third',
  'same-side': 'Put both on the same side',
  'in-column': 'Put it in the column',
  'lay-plate': 'Lay a plate under them',
  'set-larger': 'Set them larger',
  'add-to-alt': 'Add them to its alt text here',
  'drop-image-of': 'Drop those words',
  'drop-markup': 'Drop the code',
  decorative: 'It is decorative',
  'no-style': 'Take its style off',
  'words-of-piece': 'The piece’s own words',
};

/** What the button of a remedy says. */
export function sayRemedy(remedy: Remedy): string {
  switch (remedy.kind) {
    case 'placement':
      if (remedy.does === 'narrow') return `Show it ${remedy.change.width?.value} px wide`;
      if (remedy.does === 'stack') return `Stack it under ${remedy.change.stackBelow} px`;
      return CHANGES[remedy.does];
    case 'remove':
      return remedy.which === 'it' ? 'Take it off the page' : 'Take the second off';
    case 'heading-level':
      return `Make it a heading ${remedy.level}`;
    case 'head-row':
      return 'Make its first row headings';
    case 'make-teaser':
      return 'Make a teaser of the lead';
    case 'make-lead':
      return 'Make the first picture the lead';
    case 'banner-plate':
      return CHANGES['lay-plate'];
    case 'remove-block':
      return 'Remove it';
    case 'drop-want':
      return 'It is not wanted';
    case 'write-alt':
      return 'Write alt text';
    case 'rename':
      return `Name it ${remedy.stem}`;
    case 'credit-by-licence':
      return 'Write it by the licence';
    case 'set-licence':
      return 'Set licence';
    case 'find-piece':
      return 'Find a piece';
  }
}
