import { describe, expect, it } from 'vitest';
import type { Role } from '#api/people.ts';
import { drawn, exampleAsset, wordsOf } from '../testing.tsx';
import { ChosenBar } from './chosen-bar.tsx';

const bar = (count: number, role: Role = 'editor') =>
  wordsOf(
    drawn(
      <ChosenBar
        assets={Array.from({ length: count }, (_, at) => exampleAsset({ id: `a${at}` }))}
        onClear={() => undefined}
      />,
      [
        [['me'], { id: 'mara', name: 'Mara Oduya', email: 'mara@saltmere.example', role }],
        [['targets'], []],
      ],
    ),
  );

describe('what can be done with chosen pieces', () => {
  it('is more for an editor than for a contributor', () => {
    expect(bar(3)).toContain('3 chosen');
    expect(bar(3)).toMatch(
      /Put on a tray... Folder... Credit... Key words... Licence... Agreed... Throw away Clear/,
    );
    expect(bar(3, 'contributor')).not.toMatch(/tray|Licence|Agreed|Throw away/);
  });

  it('offers to replace one by the other where there are two', () => {
    expect(bar(2)).toContain('Replace...');
    expect(bar(1)).not.toContain('Replace...');
    expect(bar(3)).not.toContain('Replace...');
    expect(bar(2, 'contributor')).not.toContain('Replace...');
  });
});
