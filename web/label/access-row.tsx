import { queryOptions, useQuery } from '@tanstack/react-query';
import { Controller } from 'react-hook-form';
import * as v from 'valibot';
import type { Asset } from '#api/assets.ts';
import { may, NamedPeopleSchema } from '#api/people.ts';
import { SEEN_BY_WORDS, sayAccess, USABLE_BY_WORDS } from '#core/rights/say-terms.ts';
import { SEEN_BY, type Terms, USABLE_BY, type UsableBy } from '#core/rights/terms.ts';
import { requestJson } from '../api/client.ts';
import { pageAddressesQuery } from '../api/queries.ts';
import { OneOfList } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { sayPageTitle } from '../pages/say-title.ts';
import { changePiece } from '../pieces/pieces.ts';
import { Checkbox } from '../ui/checkbox.tsx';
import { usePageOf } from './page-of.ts';
import { LabelForm, LabelRow, OpenRow, type RowState } from './row.tsx';

const namesQuery = queryOptions({
  queryKey: ['people-names'],
  queryFn: () => requestJson('get /people/names', NamedPeopleSchema),
  staleTime: 60_000,
});

/** Whether a label has a row for who may see and use the piece. */
export const isAccessRowShown = ({ label }: Asset): boolean => sayAccess(label.terms) !== '';

/** Who may see the piece, and who may use it. */
export function AccessRow({ asset, ...state }: { readonly asset: Asset } & RowState) {
  const page = usePageTitle(asset.label.terms.usableBy);
  if (!state.isOpen && !isAccessRowShown(asset)) return null;
  return (
    <LabelRow
      name="Access"
      way={<OpenRow words="Change who may see and use it" state={state} />}
      form={state.isOpen ? <AccessForm key={asset.id} asset={asset} onDone={state.onToggle} /> : null}
    >
      <p>{sayAccess(asset.label.terms) || 'Readers may see it, and everybody who makes pages may use it.'}</p>
      {page === null ? null : <p className="text-soft">That page is “{page}”.</p>}
    </LabelRow>
  );
}

function usePageTitle(usableBy: UsableBy): string | null {
  const isOfPage = usableBy.who === 'page';
  const { data } = useQuery({ ...pageAddressesQuery, enabled: isOfPage });
  const page = isOfPage ? data?.find(({ id }) => id === usableBy.page) : undefined;
  return page ? sayPageTitle(page.title) : null;
}

const TypedSchema = v.pipe(
  v.object({
    seenBy: v.picklist(SEEN_BY),
    people: v.array(v.string()),
    usableBy: v.picklist(USABLE_BY),
    page: v.string(),
  }),
  v.forward(
    v.partialCheck(
      [['usableBy'], ['page']],
      ({ usableBy, page }) => usableBy !== 'page' || page !== '',
      'Say which page.',
    ),
    ['page'],
  ),
);

function AccessForm({ asset, onDone }: { readonly asset: Asset; readonly onDone: () => void }) {
  const { terms } = asset.label;
  const { pageId } = usePageOf();
  const { data: pages = [] } = useQuery(pageAddressesQuery);
  const form = useSaveForm({
    schema: TypedSchema,
    defaults: {
      seenBy: terms.seenBy.who,
      people: terms.seenBy.who === 'group' ? terms.seenBy.people : [],
      usableBy: terms.usableBy.who,
      page: terms.usableBy.who === 'page' ? terms.usableBy.page : pageId,
    },
    keepAs: `access to ${asset.id}`,
    save: async ({ seenBy, people, usableBy, page }) => {
      const said: Terms = {
        ...terms,
        seenBy: seenBy === 'group' ? { who: seenBy, people } : { who: seenBy },
        usableBy: usableBy === 'page' ? { who: usableBy, page } : { who: usableBy },
      };
      await changePiece(asset.id, { label: { terms: said } }, 'who may see and use it');
      onDone();
    },
  });
  const [seenBy, usableBy] = form.form.watch(['seenBy', 'usableBy']);
  return (
    <LabelForm of={form} deed="Save who may see and use it">
      <OneOfList
        of={form}
        name="seenBy"
        label="Seen by"
        choices={SEEN_BY.map((who) => [who, SEEN_BY_WORDS[who]] as const)}
        {...(seenBy === 'readers' ? {} : { hint: 'A page with it does not go out.' })}
      />
      {seenBy === 'group' ? (
        <Controller
          control={form.form.control}
          name="people"
          render={({ field }) => (
            <Group asset={asset} chosen={field.value} onChange={(people) => field.onChange(people)} />
          )}
        />
      ) : null}
      <OneOfList
        of={form}
        name="usableBy"
        label="Used by"
        choices={USABLE_BY.map((who) => [who, USABLE_BY_WORDS[who]] as const)}
      />
      {usableBy === 'page' ? (
        <OneOfList
          of={form}
          name="page"
          label="Page"
          choices={[
            ['', 'Choose the page'],
            ...pages.map(({ id, title }) => [id, sayPageTitle(title)] as const),
          ]}
        />
      ) : null}
    </LabelForm>
  );
}

interface GroupProps {
  readonly asset: Asset;
  readonly chosen: readonly string[];
  readonly onChange: (people: readonly string[]) => void;
}

/** The people of a group, besides those who see every piece. */
function Group({ asset, chosen, onChange }: GroupProps) {
  const { data: people = [] } = useQuery(namesQuery);
  const others = people.filter(({ id, role }) => id !== asset.createdBy.id && !may(role, 'decide-rights'));
  return (
    <fieldset className="grid grid-cols-2 gap-1.25">
      <legend className="mb-1 text-sm text-soft">
        Besides whoever brought it in, the rights keeper and the site owner
      </legend>
      {others.map(({ id, name }) => (
        <Checkbox
          key={id}
          checked={chosen.includes(id)}
          onChange={(isOn) => onChange(isOn ? [...chosen, id] : chosen.filter((one) => one !== id))}
        >
          {name}
        </Checkbox>
      ))}
    </fieldset>
  );
}
