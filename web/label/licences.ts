import { queryOptions, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import * as v from 'valibot';
import { KeptLicenceSchema } from '#api/rights.ts';
import {
  type HouseLicence,
  houseKey,
  type LicenceKey,
  type LicenceSaid,
  licenceKeyOf,
  termsOf,
} from '#core/rights/house-licence.ts';
import { isCatalogued, LICENCE_GROUPS, LICENCE_IDS, licenceTerms } from '#core/rights/licences.ts';
import { requestJson } from '../api/client.ts';

export const houseLicencesQuery = queryOptions({
  queryKey: ['licences'],
  queryFn: () => requestJson('get /licences', v.array(KeptLicenceSchema)),
  staleTime: 30_000,
});

/** The licences of the house, by name; none until they are known. */
export function useHouseLicences(): readonly HouseLicence[] {
  const { data } = useQuery(houseLicencesQuery);
  return useMemo(() => (data ?? []).map(({ licence }) => licence), [data]);
}

type Choices = readonly (readonly [key: LicenceKey, name: string])[];

/**
 * Every licence that can be said, in the groups that a person looks in, those of the house first. What the label says stays on
 * the list until those of the house are known.
 */
export function licenceGroups(
  ofHouse: readonly HouseLicence[],
  said?: LicenceSaid,
): readonly (readonly [heading: string, choices: Choices])[] {
  const own = said?.houseLicence && !ofHouse.some(({ id }) => id === said.houseLicence?.id) ? [said] : [];
  const house: Choices = [
    ...ofHouse.map(({ id, name }) => [houseKey(id), name] as const),
    ...own.map((one) => [licenceKeyOf(one), termsOf(one).name] as const),
  ];
  const catalogue = LICENCE_GROUPS.map(
    ([name, ids]) => [name, ids.map((id) => [id, licenceTerms(id).name] as const)] as const,
  );
  return house.length > 0 ? [['Of the house', house], ...catalogue] : catalogue;
}

/** The short name of each licence that pieces can be asked for by. */
export const licenceShorts = (ofHouse: readonly HouseLicence[]): Choices => [
  ...ofHouse.map(({ id, short }) => [houseKey(id), short] as const),
  ...LICENCE_IDS.filter(isCatalogued).map((id) => [id, licenceTerms(id).short] as const),
];
