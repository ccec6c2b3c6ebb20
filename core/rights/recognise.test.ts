import { describe, expect, it } from 'vitest';
import { isCatalogued, LICENCE_GROUPS, LICENCE_IDS, licenceTerms } from './licences.ts';
import { maybeLicenceByAddress, maybeLicenceByWords, maybePort } from './recognise.ts';

describe('a licence by its address', () => {
  it.each([
    ['https://creativecommons.org/licenses/by/4.0/', 'cc-by-4.0'],
    ['http://www.creativecommons.org/licenses/by-nc-sa/4.0/legalcode.en', 'cc-by-nc-sa-4.0'],
    ['https://creativecommons.org/licenses/by/3.0/de/', 'cc-by-3.0'],
    ['http://creativecommons.org/licenses/by-nd-nc/1.0/', 'cc-by-nc-nd-1.0'],
    ['https://creativecommons.org/licenses/by-sa/2.1/jp/', 'cc-by-sa-2.1'],
    ['https://creativecommons.org/publicdomain/zero/1.0/', 'cc0'],
    ['https://creativecommons.org/publicdomain/mark/1.0/deed.de', 'pdm'],
    ['https://rightsstatements.org/vocab/NKC/1.0/', 'no-known-copyright'],
    ['http://rightsstatements.org/page/InC-OW-EU/1.0/?language=en', 'in-copyright-orphan'],
    ['https://creativecommons.org/licenses/by/9.9/', undefined],
    ['https://example.org/licenses/by/4.0/', undefined],
    ['', undefined],
  ])('%s is %s', (address, licence) => {
    expect(maybeLicenceByAddress(address)).toBe(licence);
  });

  it('is found for every licence that has one', () => {
    for (const id of LICENCE_IDS) {
      const { address } = licenceTerms(id);
      if (address) expect(maybeLicenceByAddress(address)).toBe(id);
    }
  });

  it('tells its port to the law of a country, which a language of the deed is not', () => {
    expect(maybePort('https://creativecommons.org/licenses/by/3.0/de/')).toBe('de');
    expect(maybePort('https://creativecommons.org/licenses/by-sa/2.5/scotland/')).toBe('scotland');
    expect(maybePort('https://creativecommons.org/licenses/by/3.0/')).toBeNull();
    expect(maybePort('https://creativecommons.org/licenses/by/4.0/de/')).toBeNull();
    expect(maybePort('https://creativecommons.org/licenses/by/3.0/deed.de')).toBeNull();
  });
});

describe('a licence by its words', () => {
  it.each([
    ['Photo under CC BY-SA 4.0, please credit', 'cc-by-sa-4.0'],
    ['cc by nc nd 2.5', 'cc-by-nc-nd-2.5'],
    ['CC-BY-NC-SA-3.0', 'cc-by-nc-sa-3.0'],
    ['CC0-1.0', 'cc0'],
    ['CC Zero', 'cc0'],
    ['Creative Commons Attribution-ShareAlike 4.0 International', 'cc-by-sa-4.0'],
    ['Attribution-NonCommercial-NoDerivatives 4.0 International', 'cc-by-nc-nd-4.0'],
    ['Creative Commons Attribution-Noncommercial-No Derivative Works 3.0', 'cc-by-nc-nd-3.0'],
    ['Attribution 2.0 Generic (CC BY 2.0)', 'cc-by-2.0'],
    ['Namensnennung - Weitergabe unter gleichen Bedingungen 4.0 International', 'cc-by-sa-4.0'],
    ['Creative Commons, Namensnennung – Nicht kommerziell 3.0 Deutschland', 'cc-by-nc-3.0'],
    ['Licence Creative Commons Attribution - Pas de Modification 4.0', 'cc-by-nd-4.0'],
    ['Public Domain Mark 1.0', 'pdm'],
    ['In Copyright', 'in-copyright'],
    ['In copyright – Educational use permitted.', 'in-copyright-educational'],
    ['No Copyright - United States', 'no-copyright-us'],
    ['No known copyright restrictions', 'no-known-copyright'],
    ['see https://creativecommons.org/licenses/by-nd/4.0/ for terms', 'cc-by-nd-4.0'],
    // Without a version, or as part of a sentence, nothing is named.
    ['Creative Commons, some rights', undefined],
    ['CC BY', undefined],
    ['In copyright until 2031, ask the museum', undefined],
    ['taken by Ines at 4.0 metres', undefined],
    ['public domain', undefined],
    ['', undefined],
  ])('%j is %s', (words, licence) => {
    expect(maybeLicenceByWords(words)).toBe(licence);
  });

  it('is found for every one that has an identifier of SPDX, or a short form with its version', () => {
    for (const id of LICENCE_IDS) {
      const { spdx, short } = licenceTerms(id);
      if (spdx) expect(maybeLicenceByWords(spdx)).toBe(id);
      if (short.startsWith('CC')) expect(maybeLicenceByWords(short)).toBe(id);
    }
  });
});

it('offers every licence in one group', () => {
  const offered = LICENCE_GROUPS.flatMap(([, ids]) => ids);
  expect([...offered].sort()).toEqual(LICENCE_IDS.filter(isCatalogued).sort());
});
