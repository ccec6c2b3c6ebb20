import { chooseForm, type EmbedForm, type FormCase, formFault, sayFormFault } from './forms.ts';
import { entryById, type HostEntry, type Trust } from './host.ts';
import { type Embed, sayKind } from './model.ts';
import { sayLength, sayTime } from './parameters.ts';
import { PERMISSION_WORDS, type Permission, SANDBOX_WORDS, sayAll } from './permissions.ts';
import { settingsOf } from './settings.ts';
import { grantsOf } from './write.ts';

/** One thing that is so of an embed, with its reason. `isDue` where somebody should look at it before it is placed. */
export interface Statement {
  readonly about:
    | 'thing'
    | 'visibility'
    | 'grants'
    | 'not-given'
    | 'framing'
    | 'elsewhere'
    | 'trust'
    | 'note';
  readonly text: string;
  readonly detail: string;
  readonly isDue: boolean;
}

interface SayCase extends FormCase {
  readonly trust: Trust;
  readonly notGiven: readonly Permission[];
  readonly notes: readonly string[];
  /** Whether its host was asked, and answered. */
  readonly asked: 'not-yet' | 'answered' | 'silent';
  /** The same embed on the other targets. */
  readonly elsewhere: readonly FormCase[];
}

/** What an embed is, gets and does not get, in the order in which it is asked. */
export function sayEmbed(of: SayCase): readonly Statement[] {
  const entry = entryById(of.embed.host, of.hosts);
  return [
    sayThing(of),
    ...sayVisibility(of.embed, entry),
    ...(of.trust === 'none' ? [sayTrust(of.embed)] : []),
    ...sayGrants(of),
    ...sayNotGiven(of),
    ...sayFraming(of),
    ...of.elsewhere.flatMap(sayElsewhere),
    ...of.notes.map((note): Statement => ({ about: 'note', text: note, detail: '', isDue: true })),
  ];
}

/** "A film of Lanternreel, on the list of trusted hosts." */
export function sayWhatItIs(embed: Embed, entry: HostEntry | undefined, trust: Trust): string {
  const name = entry?.name ?? new URL(embed.page).host;
  switch (trust) {
    case 'entry':
      return `A ${sayKind(embed.kind)} at ${name}, on the list of trusted hosts.`;
    case 'decision':
      return `A ${sayKind(embed.kind)} at ${name}, trusted by decision of the site owner.`;
    case 'none':
      return `A ${sayKind(embed.kind)} at ${name}, which nobody has decided on.`;
  }
}

const SHOWS: Readonly<Record<Embed['kind'], string>> = {
  film: 'Plays',
  sound: 'Plays',
  map: 'Shows',
  form: 'Asks',
  board: 'Shows',
  feed: 'Shows',
  page: 'Shows',
};

function sayThing({ embed, asked, hosts }: SayCase): Statement {
  const { title, seconds, author, captions } = embed.facts;
  const start = settingsOf(embed, hosts).find(({ role }) => role === 'start');
  const from = start ? Number(embed.parameters[start.name] ?? 0) : 0;
  const name = title ? `“${title}”` : `a ${sayKind(embed.kind)}`;
  const text = [
    `${SHOWS[embed.kind]} ${name}`,
    seconds === null ? '' : sayLength(Math.round(seconds)),
    from > 0 ? `from ${sayTime(from)}` : '',
  ]
    .filter(Boolean)
    .join(', ');
  const isFilm = embed.kind === 'film' && asked === 'answered';
  const said =
    captions.length > 0
      ? `Captions: ${captions.map(sayLanguage).join(', ')}.`
      : isFilm
        ? 'It has no captions.'
        : '';
  return {
    about: 'thing',
    text: `${text}.`,
    detail: [ANSWERED[asked], author && `By ${author}.`, said].filter(Boolean).join(' '),
    isDue: isFilm && captions.length === 0,
  };
}

const ANSWERED: Readonly<Record<SayCase['asked'], string>> = {
  'not-yet': 'Its host is being asked.',
  answered: 'Answered by its host just now.',
  silent: 'Its host did not answer.',
};

/** The English name of a language by its tag (BCP 47); the tag itself where it has none. */
function sayLanguage(tag: string): string {
  try {
    return new Intl.DisplayNames(['en-GB'], { type: 'language' }).of(tag) ?? tag;
  } catch {
    return tag;
  }
}

function sayVisibility({ facts }: Embed, entry: HostEntry | undefined): readonly Statement[] {
  const host = entry?.name ?? 'Its host';
  switch (facts.visibility) {
    case 'by-link':
      return [
        {
          about: 'visibility',
          text: 'Is only for those who have its address.',
          detail: `${host} does not list it. Ask whose it is before it stands on a page.`,
          isDue: true,
        },
      ];
    case 'private':
      return [
        {
          about: 'visibility',
          text: 'Is private: readers would see nothing.',
          detail: `${host} shows it only to those who sign in. Ask for it to be opened.`,
          isDue: true,
        },
      ];
    default:
      return [];
  }
}

function sayTrust({ address }: Embed): Statement {
  return {
    about: 'trust',
    text: 'Can be linked, not framed.',
    detail: `${new URL(address).host} is not on the list of trusted hosts. The site owner can decide to trust it.`,
    isDue: true,
  };
}

function sayGrants(of: SayCase): readonly Statement[] {
  if (chooseForm(of) === 'widget')
    return [
      {
        about: 'grants',
        text: 'Runs its host’s script in a closed page.',
        detail: 'There it reads neither the page around it nor any cookies, and asks nobody but its host.',
        isDue: false,
      },
    ];
  if (formFault('frame', of) !== null) return [];
  const { allow, sandbox } = grantsOf(of, chooseForm(of) === 'click');
  const words = [
    ...sandbox.map((token) => SANDBOX_WORDS[token]),
    ...allow.map((name) => PERMISSION_WORDS[name]),
  ];
  if (words.length === 0)
    return [{ about: 'grants', text: 'Gets nothing: it is only shown.', detail: '', isDue: false }];
  return [
    {
      about: 'grants',
      text: `May ${sayAll(words)}.`,
      detail: 'It needs that, and gets nothing else.',
      isDue: false,
    },
  ];
}

function sayNotGiven(of: SayCase): readonly Statement[] {
  const { allow } = grantsOf(of, chooseForm(of) === 'click');
  const names = of.notGiven.filter((name) => !allow.includes(name));
  if (names.length === 0) return [];
  return [
    {
      about: 'not-given',
      text: `Does not get to ${sayAll(names.map((name) => PERMISSION_WORDS[name])).replace(/ and (?=[^,]*$)/, ' or ')}.`,
      detail: 'Asked for in the code, and not needed.',
      isDue: true,
    },
  ];
}

function sayFraming(of: SayCase): readonly Statement[] {
  const { framing, target, embed } = of;
  if (embed.carrier !== 'frame' || framing === null || of.trust === 'none') return [];
  const say = (text: string, detail: string, isDue: boolean): readonly Statement[] => [
    { about: 'framing', text, detail, isDue },
  ];
  switch (framing.kind) {
    case 'may':
      return say(
        `Can be framed on ${target.name}.`,
        framing.why === 'named'
          ? 'Its answer names it among the pages that may.'
          : 'Its answer forbids nobody.',
        false,
      );
    case 'refused':
      return say(
        `Refuses to be framed on ${target.name}.`,
        `Its answer says ${framing.by}: ${framing.value}. ${becomes(of)}`,
        true,
      );
    case 'gone':
      return say('Is not there any more.', `Its host answered ${framing.status}. ${becomes(of)}`, true);
    case 'private':
      return say('Cannot be shown to readers.', `Its host answered ${framing.status}. ${becomes(of)}`, true);
    case 'silent':
      return say(
        'Could not be asked whether it may be framed.',
        `Its host answered ${framing.status}. Ask again later.`,
        true,
      );
  }
}

const BECOMES: Readonly<Record<EmbedForm, string>> = {
  click: 'A poster stands there, and becomes the frame when it is clicked.',
  frame: 'It stands there in its frame.',
  widget: 'It stands there in a closed page of its own.',
  player: 'The browser plays it there.',
  poster: 'A linked poster stands in its place.',
  link: 'A link in words stands in its place.',
};

function becomes(of: FormCase): string {
  return BECOMES[chooseForm(of)];
}

function sayElsewhere(of: FormCase): readonly Statement[] {
  const form = chooseForm(of);
  const fault = formFault(of.embed.carrier === 'widget' ? 'widget' : 'frame', of);
  if (form === 'click' || form === 'frame' || form === 'widget' || form === 'player') return [];
  return [
    {
      about: 'elsewhere',
      text: `Does not come through on ${of.target.name}.`,
      detail: `${fault ? sayFormFault(fault) : ''} ${becomes(of)}`.trim(),
      isDue: true,
    },
  ];
}
