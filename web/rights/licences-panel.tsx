import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import * as v from 'valibot';
import { type KeptLicence, KeptLicenceSchema } from '#api/rights.ts';
import { nextFree } from '#core/naming/clash.ts';
import { webSafe } from '#core/naming/names.ts';
import { type HouseLicence, HouseLicenceSchema, houseKey } from '#core/rights/house-licence.ts';
import { isCatalogued, LICENCE_IDS, licenceTerms } from '#core/rights/licences.ts';
import { readRegions, writeRegions } from '#core/rights/regions.ts';
import { OWES_WORDS, sayHouseLicence, TITLE_WORDS } from '#core/rights/say-house-licence.ts';
import { requestJson, requestVoid, sayFailure } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { Box, Line, OneOfList } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { houseLicencesQuery } from '../label/licences.ts';
import { RegionsTypedSchema } from '../label/regions-typed.ts';
import { LabelForm } from '../label/row.tsx';
import { Button } from '../ui/button.tsx';
import { Deeds } from '../ui/deeds.tsx';
import { Fault } from '../ui/fault.tsx';
import { Folded } from '../ui/folded.tsx';
import { Panel } from '../ui/panel.tsx';
import { toast } from '../ui/toast.ts';
import { ledger } from '../undo/ledger.ts';
import { WhereUsedButton } from './where-used.tsx';

/** Which licence is being written: one that is kept, a new one, or none. */
type Writing = KeptLicence | 'new' | null;

const SCOPE = 'rights';

interface LicencesPanelProps {
  readonly mayChange: boolean;
  readonly onClose: () => void;
}

/** The licences of the house, each in sentences, and the form of one. */
export function LicencesPanel({ mayChange, onClose }: LicencesPanelProps) {
  const { data: kept = [] } = useQuery(houseLicencesQuery);
  const [writing, setWriting] = useState<Writing>(null);
  const [fault, setFault] = useState<string | null>(null);
  const remove = async (one: KeptLicence) => {
    setFault(null);
    try {
      await takeAway(one.licence.id, one.version);
      let version = 0;
      ledger.add({
        name: `removing ${one.licence.name}`,
        scope: SCOPE,
        undo: async () => {
          version = await keep(one.licence, 0);
        },
        redo: () => takeAway(one.licence.id, version),
      });
      toast(`${one.licence.name} was removed.`);
    } catch (error) {
      setFault(sayFailure(error));
    }
  };
  return (
    <Panel
      title="Licences of the house"
      about="What an archive, a society or a maker gives again and again in the same words. Pieces that carry one follow it when it changes."
      isOpen
      onClose={onClose}
    >
      {kept.length === 0 && writing === null ? (
        <p className="mt-3 text-soft">There is none yet. The catalogue’s licences are on every label.</p>
      ) : null}
      <ul className="mt-2">
        {kept.map((one) => (
          <li key={one.licence.id} className="border-t border-hairline py-2.5">
            <div className="flex flex-wrap items-baseline justify-between gap-x-3">
              <h3 className="text-base font-semibold">{one.licence.name}</h3>
              <div className="flex gap-3">
                <WhereUsedButton of="licence" value={houseKey(one.licence.id)} name={one.licence.name} />
                {mayChange ? (
                  <>
                    <Button
                      kind="link"
                      aria-label={`Change ${one.licence.name}`}
                      aria-expanded={isSameLicence(writing, one.licence)}
                      onClick={() => setWriting(isSameLicence(writing, one.licence) ? null : one)}
                    >
                      {isSameLicence(writing, one.licence) ? 'Close' : 'Change'}
                    </Button>
                    <Button
                      kind="link"
                      aria-label={`Remove ${one.licence.name}`}
                      onClick={() => void remove(one)}
                    >
                      Remove
                    </Button>
                  </>
                ) : null}
              </div>
            </div>
            <p className="text-soft">{sayHouseLicence(one.licence)}</p>
            {isSameLicence(writing, one.licence) ? (
              <LicenceForm key={one.licence.id} kept={one} others={kept} onDone={() => setWriting(null)} />
            ) : null}
          </li>
        ))}
      </ul>
      <Folded className="border-t border-hairline py-2" words="Where those of the catalogue are used">
        <ul>
          {LICENCE_IDS.filter(isCatalogued).map((id) => (
            <li key={id} className="flex items-baseline justify-between gap-3 py-0.5">
              {licenceTerms(id).name}
              <WhereUsedButton of="licence" value={id} name={licenceTerms(id).name} />
            </li>
          ))}
        </ul>
      </Folded>
      <Fault says={fault} />
      {writing === 'new' ? (
        <section aria-label="New licence" className="border-t border-hairline py-2.5">
          <LicenceForm kept={null} others={kept} onDone={() => setWriting(null)} />
        </section>
      ) : null}
      <Deeds>
        {mayChange && writing !== 'new' ? (
          <Button kind="action" onClick={() => setWriting('new')}>
            Make a licence...
          </Button>
        ) : null}
        <Button onClick={onClose}>Done</Button>
      </Deeds>
      {mayChange ? null : <p className="text-soft">They are made by the rights keeper and the site owner.</p>}
    </Panel>
  );
}

const isSameLicence = (writing: Writing, { id }: HouseLicence): boolean =>
  writing !== null && writing !== 'new' && writing.licence.id === id;

/** Keeps a licence on a version (0: a new one), and asks anew for the pieces that follow it. Answers the version that stands now. */
async function keep(licence: HouseLicence, version: number): Promise<number> {
  const asked = { path: { id: licence.id }, body: licence, version };
  const kept = await requestJson('put /licences/{id}', KeptLicenceSchema, asked);
  await queryClient.invalidateQueries();
  return kept.version;
}

async function takeAway(id: string, version: number): Promise<void> {
  await requestVoid('delete /licences/{id}', { path: { id }, version });
  await queryClient.invalidateQueries();
}

const { id: _id, onlyIn: _onlyIn, ...entries } = HouseLicenceSchema.entries;
const TypedSchema = v.object({ ...entries, onlyIn: RegionsTypedSchema });

const AT_FIRST: v.InferInput<typeof TypedSchema> = {
  name: '',
  short: '',
  address: '',
  publish: true,
  decision: false,
  commercial: true,
  educationalOnly: false,
  onlyIn: '',
  allowsDerivatives: true,
  owesCredit: 'yes',
  keepsNotice: true,
  sayChanges: true,
  shareAlike: false,
  titleInCredit: 'no',
};

interface LicenceFormProps {
  /** The licence that is changed; null for a new one. */
  readonly kept: KeptLicence | null;
  readonly others: readonly KeptLicence[];
  readonly onDone: () => void;
}

function LicenceForm({ kept, others, onDone }: LicenceFormProps) {
  const licence = kept?.licence ?? null;
  const form = useSaveForm({
    schema: TypedSchema,
    defaults: licence
      ? { ...licence, onlyIn: licence.onlyIn === null ? '' : writeRegions([licence.onlyIn]) }
      : AT_FIRST,
    keepAs: `licence ${licence?.id ?? ''}`,
    save: async ({ onlyIn, ...said }) => {
      const id = licence?.id ?? freeId(said.short, others);
      const next: HouseLicence = { ...said, id, onlyIn: readRegions(onlyIn).regions[0] ?? null };
      let version = await keep(next, kept?.version ?? 0);
      ledger.add({
        name: licence ? `changing ${licence.name}` : `making ${next.name}`,
        scope: SCOPE,
        undo: async () => {
          if (!licence) await takeAway(id, version);
          version = licence ? await keep(licence, version) : 0;
        },
        redo: async () => {
          version = await keep(next, version);
        },
      });
      onDone();
    },
  });
  const isPublished = form.form.watch('publish');
  return (
    <LabelForm of={form} deed={licence ? 'Save the licence' : 'Make the licence'}>
      <Line of={form} name="name" label="Name" maxLength={120} />
      <div className="grid gap-2.25 narrow:grid-cols-2">
        <Line
          of={form}
          name="short"
          label="In a credit"
          maxLength={60}
          placeholder="Short, as readers see it"
        />
        <Line of={form} name="address" label="Address of its text" placeholder="https://" />
      </div>
      <fieldset className="grid gap-1.25 narrow:grid-cols-2">
        <legend className="mb-1 text-sm text-soft">It allows</legend>
        <Box of={form} name="publish">
          To be published
        </Box>
        {isPublished ? (
          <>
            <Box of={form} name="commercial">
              Commercial use
            </Box>
            <Box of={form} name="educationalOnly">
              Educational use alone
            </Box>
            <Box of={form} name="allowsDerivatives">
              To be cropped and changed
            </Box>
          </>
        ) : (
          <Box of={form} name="decision">
            The rights keeper may decide otherwise
          </Box>
        )}
      </fieldset>
      <div className="grid gap-2.25 narrow:grid-cols-3">
        <Line of={form} name="onlyIn" label="Only in" placeholder="Everywhere" />
        <OneOfList
          of={form}
          name="owesCredit"
          label="Credit"
          choices={choicesOf(OWES_WORDS, HouseLicenceSchema.entries.owesCredit.options)}
        />
        <OneOfList
          of={form}
          name="titleInCredit"
          label="Title in the credit"
          choices={choicesOf(TITLE_WORDS, HouseLicenceSchema.entries.titleInCredit.options)}
        />
      </div>
      <fieldset className="grid gap-1.25 narrow:grid-cols-2">
        <legend className="mb-1 text-sm text-soft">It asks for</legend>
        <Box of={form} name="keepsNotice">
          The copyright notice to stay
        </Box>
        <Box of={form} name="sayChanges">
          Changes to be said
        </Box>
        <Box of={form} name="shareAlike">
          The same licence for what was changed
        </Box>
      </fieldset>
    </LabelForm>
  );
}

const choicesOf = <Key extends string>(words: Readonly<Record<Key, string>>, keys: readonly Key[]) =>
  keys.map((key) => [key, words[key]] as const);

/** It stands in files and addresses, so it says which licence it is. */
const MOST_ID_LETTERS = 20;

function freeId(short: string, kept: readonly KeptLicence[]): string {
  const stem = webSafe(short).slice(0, MOST_ID_LETTERS).replace(/-+$/, '') || 'licence';
  return nextFree(stem, (id) => kept.some(({ licence }) => licence.id === id));
}
