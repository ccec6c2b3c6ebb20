/**
 * JSON that is stored for years. Each kind has one version and one chain of small steps: what was stored in an earlier
 * version is brought up to date at each read, and written back in the newest one at the next write. A step is a pure
 * function from the value as the version before stored it to the value as the version after does; it is never changed
 * once it was out, and never removed.
 */
export interface StoredKind {
  readonly name: string;
  /** The step at place n leads from version n + 1 to n + 2, so that no steps at all mean version 1. */
  readonly steps: readonly ((stored: unknown) => unknown)[];
}

/** The version in which a kind is written today; what was stored before versions were is of version 1. */
const versionOf = ({ steps }: StoredKind): number => steps.length + 1;

/** Under this stands what is no object, and so cannot have its version in it. */
const WRAPPED = '$';

/** A value as it is stored: an object with its version in it, a list in an object with it. */
export function toStored(kind: StoredKind, value: unknown): unknown {
  const version = versionOf(kind);
  return isObject(value) && !(WRAPPED in value) && !('v' in value)
    ? { v: version, ...value }
    : { v: version, [WRAPPED]: value };
}

/**
 * What was stored, brought up to date, for a schema to read. What a later version stored is handed on with its version in
 * it, which no schema knows: it is refused in words and stays as it is, instead of being taken for something it is not.
 */
export function fromStored(kind: StoredKind, stored: unknown): unknown {
  const { version, value } = opened(stored);
  if (version > versionOf(kind)) return stored;
  return kind.steps.slice(version - 1).reduce((older, step) => step(older), value);
}

function opened(stored: unknown): { readonly version: number; readonly value: unknown } {
  if (!isObject(stored) || typeof stored.v !== 'number') return { version: 1, value: stored };
  const { v: version, ...rest } = stored;
  return { version, value: WRAPPED in rest ? rest[WRAPPED] : rest };
}

function isObject(value: unknown): value is Readonly<Record<string, unknown>> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

const kind = (name: string, ...steps: StoredKind['steps']): StoredKind => ({ name, steps });

/** One quality for all pictures of a format: likeness, which stood beside it, is what decides since. */
function withoutQualities(stored: unknown): unknown {
  if (!isObject(stored)) return stored;
  const { quality: _, ...rest } = stored;
  return rest;
}

/** Blocks had no IDs, but for placements; of two with the same one the later gets another. */
function withBlockIds(stored: unknown): unknown {
  if (!isObject(stored) || !Array.isArray(stored.blocks)) return stored;
  const taken = new Set<unknown>();
  const blocks = stored.blocks.map((block: unknown, at) => {
    if (!isObject(block)) return block;
    const attrs = isObject(block.attrs) ? block.attrs : {};
    const isOwn = typeof attrs.id === 'string' && !taken.has(attrs.id);
    const id = isOwn ? attrs.id : `block-${at + 1}`;
    taken.add(id);
    return { ...block, attrs: { ...attrs, id } };
  });
  return { ...stored, blocks };
}

/**
 * Recipes and placements call a colour under or round a picture its background, and steps that are switched off disabled; at
 * any depth, since recipes lie in pages, rows of runs and orders. A recipe is known by its turn and mirror.
 */
function withBackgrounds(stored: unknown): unknown {
  if (Array.isArray(stored)) return stored.map(withBackgrounds);
  if (!isObject(stored)) return stored;
  const isRecipe = 'turn' in stored && 'mirror' in stored;
  const isPlacement = 'asset' in stored && 'position' in stored;
  return Object.fromEntries(
    Object.entries(stored).map(([field, value]) => {
      if (field === 'ground' && (isRecipe || isPlacement)) return ['backgroundColour', value];
      if (field === 'off' && isRecipe) return ['disabledSteps', stepsOf(value)];
      return [field, withBackgrounds(value)];
    }),
  );
}

const stepsOf = (steps: unknown) =>
  Array.isArray(steps) ? steps.map((step) => (step === 'ground' ? 'backgroundColour' : step)) : steps;

/** Whether an embed loads only when it is clicked was called by the event. */
function withLoadOnClick(stored: unknown): unknown {
  if (!isObject(stored) || !isObject(stored.embed)) return stored;
  const { onClick, ...embed } = stored.embed;
  return onClick === undefined ? stored : { ...stored, embed: { ...embed, loadOnClick: onClick } };
}

const LABEL_TERMS: Readonly<Record<string, string>> = {
  maker: 'creator',
  notice: 'copyrightNotice',
  description: 'extendedDescription',
  taken: 'dateCreated',
  words: 'keywords',
};

/** What a label says is called as the standards call it (IPTC Photo Metadata, schema.org). */
function withTermsOfTheField(stored: unknown): unknown {
  if (!isObject(stored)) return stored;
  return Object.fromEntries(
    Object.entries(stored).map(([field, value]) => [LABEL_TERMS[field] ?? field, value]),
  );
}

/** Words were said in one language. */
function withTranslations(stored: unknown): unknown {
  return isObject(stored) && !('translations' in stored) ? { ...stored, translations: [] } : stored;
}

/** Nothing was agreed of a piece but its licence, and nothing said of what it is. */
function withTerms(stored: unknown): unknown {
  if (!isObject(stored)) return stored;
  const terms = {
    begins: '',
    ends: '',
    territory: [],
    uses: [],
    copies: null,
    price: null,
    agreed: '',
    agreement: null,
    consent: 'unsaid',
    consentForm: null,
    shownFrom: '',
    shownUntil: '',
  };
  return { work: '', licenceAddress: '', terms, decisions: [], ...stored };
}

/** Nothing could be decided beforehand of what happens once a term is over. */
function withAfterwards(stored: unknown): unknown {
  if (!isObject(stored) || !isObject(stored.terms)) return stored;
  return { ...stored, terms: { afterwards: { do: 'unsaid' }, ...stored.terms } };
}

/** A credit could only be put together by the licence. */
function withCreditWords(stored: unknown): unknown {
  return isObject(stored) && !('creditWords' in stored) ? { ...stored, creditWords: [] } : stored;
}

/** Whoever worked in the house saw each piece, and whoever made pages used it. */
function withWhoSeesAndUses(stored: unknown): unknown {
  if (!isObject(stored) || !isObject(stored.terms)) return stored;
  const terms = { seenBy: { who: 'readers' }, usableBy: { who: 'everybody' }, ...stored.terms };
  return { ...stored, terms };
}

/** Every licence was one of the catalogue's. */
function withHouseLicence(stored: unknown): unknown {
  return isObject(stored) && !('houseLicence' in stored) ? { ...stored, houseLicence: null } : stored;
}

/** What was no day of the calendar, as 30 February, stood as the day on which something was made. */
function withRealDays(stored: unknown): unknown {
  if (!isObject(stored) || typeof stored.dateCreated !== 'string') return stored;
  const at = Date.parse(stored.dateCreated);
  const isDay = !Number.isNaN(at) && new Date(at).toISOString().startsWith(stored.dateCreated);
  return isDay ? stored : { ...stored, dateCreated: '' };
}

export const STORED = {
  page: kind('page', withBlockIds, withBackgrounds),
  rules: kind('house rules', withoutQualities),
  label: kind(
    'label',
    withTermsOfTheField,
    withTranslations,
    withTerms,
    withAfterwards,
    withCreditWords,
    withWhoSeesAndUses,
    withHouseLicence,
    withRealDays,
  ),
  prep: kind('recipe of a piece', withBackgrounds),
  embed: kind('embed', withLoadOnClick),
  hosts: kind('hosts of embeds'),
  decisions: kind('decisions on hosts'),
  conditions: kind('conditions of a piece'),
  curves: kind('likeness curves'),
  statements: kind('statements'),
  found: kind('found picture'),
  runRow: kind('row of a run', withBackgrounds),
  jobInput: kind('input of a job', withBackgrounds),
  offer: kind('offer of an agency'),
  teaser: kind('what was sent for listings'),
  compared: kind('what was sent and what was found'),
  inherited: kind('a page that was read to be brought in'),
  inheritedBeside: kind('where the files beside it are kept'),
  film: kind('facts of a film'),
  captionLanguages: kind('languages that a film has captions in'),
  filmRecipe: kind('what is made of a film'),
  filmMade: kind('files that were made of a film'),
  heard: kind('what was heard in a film'),
  cues: kind('captions'),
  messageChoices: kind('what a person chose to be told'),
  notification: kind('what a person is told'),
  inheritedFacts: kind('what its files and links are'),
  inheritedBecame: kind('what it became'),
} as const;
