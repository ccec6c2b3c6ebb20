import { useQuery } from '@tanstack/react-query';
import { may } from '#api/people.ts';
import type { WordingQuery } from '#api/wording.ts';
import { callLanguage } from '#core/words/language.ts';
import { foldersQuery, meQuery, pagesQuery } from '../api/queries.ts';
import { OFFERED_LANGUAGES } from '../label/offered-languages.ts';
import { sayPageTitle } from '../pages/say-title.ts';
import { Choice, Sentence } from '../sentence/sentence.tsx';

const WHICH = [
  ['no', 'all pieces without them'],
  ['yes', 'every picture'],
] as const;

/** The one sentence that a wording round is asked with. */
export function WordingQuestion({
  question,
  onAsk,
}: {
  readonly question: WordingQuery;
  readonly onAsk: (question: WordingQuery) => void;
}) {
  const { data: me } = useQuery(meQuery);
  const ofPages = me ? may(me.role, 'edit-pages') : false;
  const pages = useQuery({ ...pagesQuery, enabled: ofPages }).data?.pages ?? [];
  const folders = useQuery(foldersQuery).data ?? [];
  const places = [
    ...(ofPages
      ? ([
          ['due', 'pages due this week'],
          ['pages', 'any page'],
        ] as const)
      : []),
    ['shelf', 'the whole shelf'] as const,
    ...pages.map(({ id, title }) => [`page:${id}`, `“${sayPageTitle(title)}”`] as const),
    ...folders.map(({ path }) => [`folder:${path}`, path.replaceAll('/', ' / ')] as const),
  ];
  const { place = ofPages ? 'due' : 'shelf', page, folder, all = 'no', language = '' } = question;
  const chosen = place === 'page' ? `page:${page}` : place === 'folder' ? `folder:${folder}` : place;
  const rest = { all, language };
  const choose = (value: string) => {
    const [kind, ...key] = value.split(':');
    if (kind === 'page') onAsk({ ...rest, place: 'page', page: key.join(':') });
    else if (kind === 'folder') onAsk({ ...rest, place: 'folder', folder: key.join(':') });
    else if (kind === 'due' || kind === 'pages' || kind === 'shelf') onAsk({ ...rest, place: kind });
  };
  return (
    <Sentence>
      Words for{' '}
      <Choice
        about="Which"
        value={all}
        choices={WHICH}
        onChoose={(next) => onAsk({ ...question, all: next })}
      />{' '}
      on <Choice about="Where" value={chosen} choices={places} onChoose={choose} />, in{' '}
      <Choice
        about="Language"
        value={language}
        choices={[
          ['', 'their own language'],
          ...OFFERED_LANGUAGES.map((tag) => [tag, callLanguage(tag)] as const),
        ]}
        onChoose={(next) => onAsk({ ...question, language: next })}
      />
    </Sentence>
  );
}
