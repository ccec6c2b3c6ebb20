import type { HouseLicence } from './house-licence.ts';
import { sayRegions } from './regions.ts';

export const OWES_WORDS: Readonly<Record<HouseLicence['owesCredit'], string>> = {
  yes: 'Owed',
  asked: 'Asked for',
  house: 'As the house rules say',
  no: 'Not needed',
};

export const TITLE_WORDS: Readonly<Record<HouseLicence['titleInCredit'], string>> = {
  no: 'Stays out of it',
  wished: 'May stand in it',
  yes: 'Stands in it',
};

/** What a licence of the house allows and asks for, in sentences. */
export function sayHouseLicence(licence: HouseLicence): string {
  const { publish, decision, commercial, educationalOnly, onlyIn, allowsDerivatives } = licence;
  if (!publish)
    return decision ? 'Published only where the rights keeper decides it.' : 'Not to be published.';
  const where = onlyIn === null ? '' : ` in ${sayRegions([onlyIn])}`;
  const uses = educationalOnly
    ? 'For education alone'
    : commercial
      ? 'For any use'
      : 'For uses that are not commercial';
  const asks = [
    licence.owesCredit === 'yes' ? 'a credit' : '',
    licence.sayChanges && allowsDerivatives ? 'that changes are said' : '',
    licence.shareAlike && allowsDerivatives ? 'the same licence for what was changed' : '',
  ].filter(Boolean);
  return [
    `${uses}${where}.`,
    allowsDerivatives ? 'May be cropped and changed.' : 'Not to be changed.',
    asks.length === 0 ? '' : `Asks for ${new Intl.ListFormat('en-GB').format(asks)}.`,
  ]
    .filter(Boolean)
    .join(' ');
}
