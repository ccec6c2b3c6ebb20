import { describe, expect, it } from 'vitest';
import type { Role } from '#api/people.ts';
import { drawn, wordsOf } from '../testing.tsx';
import { Folders } from './folders.tsx';

interface Open {
  readonly folder?: string;
  readonly part?: string;
  readonly role?: Role;
}

const FOLDERS = [
  { path: 'birds', pieces: 9 },
  { path: 'birds/heron', pieces: 4 },
  { path: 'events', pieces: 0 },
];

function folders({ folder = '', part, role = 'editor' }: Open = {}): string {
  return drawn(
    <Folders held={11} part={part} folder={folder} onChoose={() => undefined} onAsk={() => undefined} />,
    [
      [['folders'], FOLDERS],
      [['targets'], []],
      [['me'], { id: 'mara', name: 'Mara Oduya', email: 'mara@saltmere.example', role }],
    ],
  );
}

/** The words of the buttons that say they are the open one. */
const current = (html: string) =>
  [...html.matchAll(/<button[^>]*aria-current="true"[^>]*>(.*?)<\/button>/g)].map(([, words]) =>
    wordsOf(words ?? ''),
  );

describe('the folders of the shelf', () => {
  it('stand with what they hold, and with all that is on the shelf, in a folder or not', () => {
    expect(wordsOf(folders())).toMatch(/^All 11 birds 9 heron 4 events 0/);
  });

  it.each([
    [{}, ['All 11']],
    [{ folder: 'birds/heron' }, ['heron 4']],
    [{ part: 'thrown-away' }, ['Thrown away']],
    [{ part: 'pinned' }, ['Pinned']],
  ])('say which is open: %j', (open, words) => {
    expect(current(folders(open))).toEqual(words);
  });

  it('are removed only while they are empty', () => {
    expect(wordsOf(folders({ folder: 'events' }))).toContain('Remove it');
    expect(wordsOf(folders({ folder: 'birds' }))).not.toContain('Remove it');
    expect(wordsOf(folders({ folder: 'birds' }))).toContain('Move or rename...');
  });

  it('are no contributor’s to change', () => {
    expect(wordsOf(folders({ folder: 'events', role: 'contributor' }))).not.toMatch(/New folder|Move|Remove/);
  });
});
