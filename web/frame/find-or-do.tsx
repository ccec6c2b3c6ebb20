import { useQuery } from '@tanstack/react-query';
import { Command } from 'cmdk';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import type { PageSummary } from '#api/pages.ts';
import { may, type Permission } from '#api/people.ts';
import { namesHowWell } from '#core/words/find.ts';
import { askShelf, meQuery, pagesQuery, pagesTitledQuery } from '../api/queries.ts';
import { chooseTheme, theme } from '../theme/theme.ts';
import { VEIL_LOOK } from '../ui/panel.tsx';
import { stepBack, stepForward } from '../undo/undo-keys.tsx';
import { useOffered } from './commands.ts';

const isAddress = (words: string) => /^https?:/i.test(words.trim());

function gatherParams(words: string): URLSearchParams {
  const text = words.trim();
  return new URLSearchParams(isAddress(text) ? { address: text } : { words: text });
}

const gatherOffer = (words: string) =>
  isAddress(words) ? 'Read this address for pictures' : `Gather pictures of ${words.trim()}`;

const GROUP_LOOK =
  '**:[[cmdk-group-heading]]:px-2 **:[[cmdk-group-heading]]:pt-2 **:[[cmdk-group-heading]]:pb-0.5 **:[[cmdk-group-heading]]:font-semibold **:[[cmdk-group-heading]]:text-2xs **:[[cmdk-group-heading]]:text-soft';
const FOUND_LOOK =
  'flex cursor-pointer items-center gap-2.5 rounded-sm px-2 py-1.5 data-[selected=true]:bg-action-soft forced-colors:data-[selected=true]:bg-[Highlight]';

/** What can be opened to be done, each with the deed that it takes. */
const WAYS: readonly { readonly words: string; readonly to: string; readonly deed?: Permission }[] = [
  { words: 'Begin a page', to: '/pages/new', deed: 'edit-pages' },
  { words: 'Gather pictures from everywhere', to: '/gather', deed: 'gather' },
  { words: 'Read an embed: a film, a map, a form, a board', to: '/embeds', deed: 'edit-pages' },
  { words: 'Do the same to many pictures: a run', to: '/shelf/runs/new', deed: 'say-rights' },
  { words: 'Show earlier runs', to: '/shelf/runs', deed: 'say-rights' },
  { words: 'Write alt texts, one picture after the other', to: '/shelf/words' },
  { words: 'Show pictures without alt text', to: '/shelf?missing=alt' },
  { words: 'Show pieces whose licence is not known', to: '/shelf?licence=unknown' },
  { words: 'Show what waits in the ledger of rights', to: '/rights', deed: 'say-rights' },
  { words: 'Show what ends within a month', to: '/rights?matter=ends&within=30', deed: 'say-rights' },
  { words: 'Show how all pages stand: the report', to: '/report', deed: 'set-rules' },
  { words: 'Open the house rules', to: '/rules' },
];

/**
 * The first answer is the chosen one, until somebody moves on from it: what comes later, as pages and pieces do, may put
 * another first.
 */
function useFirstChosen(words: string) {
  const [chosen, setChosen] = useState('');
  const [list, setList] = useState<HTMLElement | null>(null);
  const hasMoved = useRef(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: other words are a question of their own
  useEffect(() => {
    hasMoved.current = false;
  }, [words]);
  useEffect(() => {
    if (!list) return;
    const look = () => {
      const first = list.querySelector<HTMLElement>('[role="option"]:not([aria-disabled="true"])');
      if (!hasMoved.current && first?.dataset.value) setChosen(first.dataset.value);
    };
    const observer = new MutationObserver(look);
    observer.observe(list, { childList: true, subtree: true });
    look();
    return () => observer.disconnect();
  }, [list]);
  const moved = () => {
    hasMoved.current = true;
  };
  return { list: setList, chosen, setChosen, moved };
}

/** The pages that are listed; where there are more, those that the words name too. */
function usePagesFor(words: string, isAsked: boolean): readonly PageSummary[] {
  const { data: listed } = useQuery({ ...pagesQuery, enabled: isAsked });
  // Not of the title: it asks for the proof of what is named.
  const title = words.replace(/\bproof( of)?\b/i, '').trim();
  const isMore = listed !== undefined && listed.count > listed.pages.length && title.length > 1;
  const { data: named } = useQuery({ ...pagesTitledQuery(title), enabled: isAsked && isMore });
  if (!listed || !isMore || !named) return listed?.pages ?? [];
  const known = new Set(listed.pages.map(({ id }) => id));
  return [...listed.pages, ...named.pages.filter(({ id }) => !known.has(id))];
}

interface FoundProps {
  /** What tells it from everything else of the list; another where it is found by other words than before. */
  readonly id: string;
  /** What it is found by. */
  readonly words: string;
  readonly onSelect: () => void;
  readonly children?: ReactNode;
}

/** One answer; shown by its words where nothing else is said. */
function Found({ id, words, onSelect, children = words }: FoundProps) {
  return (
    <Command.Item className={FOUND_LOOK} value={id} keywords={[words]} onSelect={onSelect}>
      {children}
    </Command.Item>
  );
}

/** By words alone, as they are read: an ID that happens to hold the letters names nothing. */
const byWords = (_id: string, typed: string, keywords: readonly string[] = []) =>
  namesHowWell(typed, keywords.join(' '));

interface FindOrDoProps {
  /** What was typed before the field was there; asked once it is. */
  readonly typedAhead: () => string;
  readonly isOpen: boolean;
  readonly onClose: () => void;
  readonly onKeys: () => void;
}

/** One field that finds pages and pieces, and does what the areas' buttons do. */
export function FindOrDo({ typedAhead, isOpen, onClose, onKeys }: FindOrDoProps) {
  const [words, setWords] = useState('');
  const navigate = useNavigate();
  const offered = useOffered();
  const { data: me } = useQuery(meQuery);
  const gathersToo = me && may(me.role, 'gather');
  const readsPages = Boolean(me && may(me.role, 'edit-pages'));
  const pages = usePagesFor(words, isOpen && readsPages);
  const pieces = useQuery({
    queryKey: ['find', words],
    queryFn: ({ signal }) => askShelf({ words, limit: '6' }, signal),
    enabled: isOpen && words.trim().length > 1,
    placeholderData: (before) => before,
  });
  const { list, chosen, setChosen, moved } = useFirstChosen(words);
  const close = () => {
    setWords('');
    onClose();
  };
  const go = (address: string) => () => {
    close();
    navigate(address);
  };
  const act = (work: () => void) => () => {
    close();
    work();
  };
  return (
    <Command.Dialog
      open={isOpen}
      onOpenChange={(open) => !open && close()}
      label="Find or do"
      filter={byWords}
      value={chosen}
      onValueChange={setChosen}
      onKeyDown={(event) => (event.key === 'ArrowDown' || event.key === 'ArrowUp') && moved()}
      contentClassName="fixed top-[8vh] left-1/2 z-51 w-[min(560px,calc(100vw-24px))] -translate-x-1/2 border-ink border-t-7 bg-panel shadow-card"
      overlayClassName={VEIL_LOOK}
    >
      <Command.Input
        className="w-full border-b border-line px-4 py-3.5 text-xl outline-none focus-visible:shadow-none"
        value={words}
        onValueChange={setWords}
        // As if it had been typed now: only what is typed makes the first answer the chosen one.
        onFocus={() => {
          const typed = typedAhead();
          if (typed) setWords((before) => before + typed);
        }}
        placeholder="Find a page or a piece, or say what to do"
      />
      <Command.List className="max-h-[52vh] overflow-auto p-1.5" ref={list} onPointerMove={moved}>
        <Command.Empty className="px-2.5 py-3.5 text-soft">
          Nothing of that name. Try a word of the title, or the maker.
        </Command.Empty>
        <Command.Group className={GROUP_LOOK} heading="Pages">
          {pages.map((page) => (
            <Found
              key={page.id}
              id={`page ${page.id}`}
              words={`${page.title} ${page.targetName}`}
              onSelect={go(`/pages/${page.id}`)}
            >
              {page.title} <span className="text-soft">{page.targetName}</span>
            </Found>
          ))}
        </Command.Group>
        {/proof/i.test(words) ? (
          <Command.Group className={GROUP_LOOK} heading="Proofs">
            {pages.map((page) => (
              <Found
                key={page.id}
                id={`proof ${page.id}`}
                words={`Proof of ${page.title}`}
                onSelect={go(`/pages/${page.id}/proof`)}
              />
            ))}
          </Command.Group>
        ) : null}
        <Command.Group className={GROUP_LOOK} heading="Pieces">
          {words.trim().length > 1 &&
            pieces.data?.assets.map((asset) => (
              // The shelf has found it, also by what is not shown here.
              <Found
                key={asset.id}
                id={`piece ${asset.id} ${words}`}
                words={`${asset.label.title} ${asset.stem} ${words}`}
                onSelect={go(`/shelf?piece=${asset.id}`)}
              >
                <img className="h-7.5 w-11 object-cover" src={asset.thumb} alt="" />
                {asset.label.title || asset.stem}{' '}
                <span className="font-mono text-mono text-soft">{asset.stem}</span>
              </Found>
            ))}
        </Command.Group>
        {offered.length > 0 ? (
          <Command.Group className={GROUP_LOOK} heading="On this screen">
            {offered.map(({ words: does, act: work }) => (
              <Found key={does} id={`here ${does}`} words={does} onSelect={act(work)} />
            ))}
          </Command.Group>
        ) : null}
        <Command.Group className={GROUP_LOOK} heading="Do">
          {WAYS.filter(({ deed }) => !deed || (me && may(me.role, deed))).map(({ words: does, to }) => (
            <Found key={to} id={`to ${to}`} words={does} onSelect={go(to)} />
          ))}
          {gathersToo && words.trim().length > 1 ? (
            <Found
              id={`gather ${words}`}
              words={`${gatherOffer(words)} ${words}`}
              onSelect={go(`/gather?${gatherParams(words)}`)}
            >
              {gatherOffer(words)}
            </Found>
          ) : null}
          <Found id="undo" words="Undo" onSelect={act(() => void stepBack())} />
          <Found id="redo" words="Redo" onSelect={act(() => void stepForward())} />
          <Found
            id="theme"
            words="Change between light and dark"
            onSelect={act(() => chooseTheme(theme.state === 'dark' ? 'light' : 'dark'))}
          />
          <Found id="keys" words="Show the keys" onSelect={act(onKeys)} />
        </Command.Group>
      </Command.List>
    </Command.Dialog>
  );
}
