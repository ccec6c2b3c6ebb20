import { useQuery } from '@tanstack/react-query';
import { Command } from 'cmdk';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { type Deed, may } from '#api/people.ts';
import { askShelf, meQuery, pagesQuery } from '../api/queries.ts';
import { chooseTheme, theme } from '../theme/theme.ts';
import { stepBack, stepForward } from '../undo/undo-keys.tsx';

function gatherParams(words: string): URLSearchParams {
  const text = words.trim();
  return new URLSearchParams(/^https?:/i.test(text) ? { address: text } : { words: text });
}

/** What can be opened to be done, each with the deed that it takes. */
const WAYS: readonly { readonly words: string; readonly to: string; readonly deed?: Deed }[] = [
  { words: 'Begin a page', to: '/pages/new', deed: 'edit-pages' },
  { words: 'Gather pictures from everywhere', to: '/gather', deed: 'gather' },
  { words: 'Read an embed: a film, a map, a form, a board', to: '/embeds', deed: 'edit-pages' },
  { words: 'Do the same to many pictures: a run', to: '/shelf/runs/new', deed: 'say-rights' },
  { words: 'Show earlier runs', to: '/shelf/runs', deed: 'say-rights' },
  { words: 'Show pictures without alt text', to: '/shelf?missing=alt' },
  { words: 'Show pieces whose licence is not known', to: '/shelf?licence=unknown' },
  { words: 'Open the house rules', to: '/rules' },
];

interface FindOrDoProps {
  readonly isOpen: boolean;
  readonly onClose: () => void;
  readonly onKeys: () => void;
}

/** One field that finds pages and pieces, and does what the areas' buttons do. */
export function FindOrDo({ isOpen, onClose, onKeys }: FindOrDoProps) {
  const [words, setWords] = useState('');
  const navigate = useNavigate();
  const { data: me } = useQuery(meQuery);
  const gathersToo = me && may(me.role, 'gather');
  const readsPages = Boolean(me && may(me.role, 'edit-pages'));
  const pages = useQuery({ ...pagesQuery, enabled: isOpen && readsPages });
  const pieces = useQuery({
    queryKey: ['find', words],
    queryFn: ({ signal }) => askShelf({ words, limit: '6' }, signal),
    enabled: isOpen && words.trim().length > 1,
    placeholderData: (before) => before,
  });
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
      contentClassName="find"
      overlayClassName="dialog-ground"
    >
      <Command.Input
        value={words}
        onValueChange={setWords}
        placeholder="Find a page or a piece, or say what to do"
      />
      <Command.List>
        <Command.Empty>Nothing of that name. Try a word of the title, or the maker.</Command.Empty>
        <Command.Group heading="Pages">
          {pages.data?.map((page) => (
            <Command.Item
              key={page.id}
              value={`page ${page.title} ${page.id}`}
              onSelect={go(`/pages/${page.id}`)}
            >
              {page.title} <span className="soft">{page.targetName}</span>
            </Command.Item>
          ))}
        </Command.Group>
        <Command.Group heading="Pieces">
          {words.trim().length > 1 &&
            pieces.data?.assets.map((asset) => (
              <Command.Item
                key={asset.id}
                value={`piece ${words} ${asset.id}`}
                onSelect={go(`/shelf?piece=${asset.id}`)}
              >
                <img src={asset.thumb} alt="" />
                {asset.label.title || asset.stem} <span className="soft mono">{asset.stem}</span>
              </Command.Item>
            ))}
        </Command.Group>
        <Command.Group heading="Do">
          {WAYS.filter(({ deed }) => !deed || (me && may(me.role, deed))).map(({ words: does, to }) => (
            <Command.Item key={to} onSelect={go(to)}>
              {does}
            </Command.Item>
          ))}
          {gathersToo && words.trim().length > 1 ? (
            <Command.Item value={`gather ${words}`} onSelect={go(`/gather?${gatherParams(words)}`)}>
              {/^https?:/i.test(words.trim())
                ? 'Read this address for pictures'
                : `Gather pictures of ${words.trim()}`}
            </Command.Item>
          ) : null}
          <Command.Item onSelect={act(() => void stepBack())}>Undo</Command.Item>
          <Command.Item onSelect={act(() => void stepForward())}>Redo</Command.Item>
          <Command.Item onSelect={act(() => chooseTheme(theme.state === 'dark' ? 'light' : 'dark'))}>
            Change between light and dark
          </Command.Item>
          <Command.Item onSelect={act(onKeys)}>Show the keys</Command.Item>
        </Command.Group>
      </Command.List>
    </Command.Dialog>
  );
}
