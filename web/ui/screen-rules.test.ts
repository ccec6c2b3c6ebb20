import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { screenFaults } from '../../scripts/lib/screen-rules.mjs';

const made: string[] = [];
afterAll(() => {
  for (const folder of made) rmSync(folder, { recursive: true });
});

/** The faults of a product that consists of one file. */
function faultsOf(name: string, text: string): readonly string[] {
  const root = mkdtempSync(join(tmpdir(), 'placard-screens-'));
  made.push(root);
  mkdirSync(dirname(join(root, name)), { recursive: true });
  writeFileSync(join(root, name), text);
  return screenFaults(root);
}

describe('what a screen is drawn with', () => {
  it.each([
    ['web/a/a.tsx', '<select><option>a</option></select>', 2],
    ['web/a/a.tsx', '<Input\n  type="date" />', 1],
    ['web/a/a.tsx', '<input type="checkbox" />', 1],
    ['web/a/a.tsx', '<details><summary>More</summary></details>', 1],
    ['web/a/a.tsx', '<fieldset\n  disabled={!isEditable}>', 1],
    ['web/a/a.tsx', '<datalist id="a">', 1],
    ['web/a/a.tsx', '<li draggable={isEditable} />', 1],
    ['web/a/a.tsx', '<li draggable\n onDragStart={drag} />', 1],
    ['web/a/a.css', '.a { color: red; }', 1],
    ['web/theme/base.css', '.a { @apply flex; }', 1],
    ['web/theme/base.css', 'a {}\n'.repeat(400), 1],
  ])('%s with %j is told of', (name, text, count) => {
    expect(faultsOf(name, text)).toHaveLength(count);
  });

  it.each([
    ['web/ui/colour.tsx', '<input type="color" />'],
    ['web/a/a.tsx', 'element.matches(\'input:not([type="color"])\')'],
    ['web/a/a.tsx', '<fieldset className="grid"><input disabled /></fieldset>'],
    ['web/a/a.tsx', '<img draggable={false} />'],
    ['web/a/a.test.tsx', '<select></select>'],
    ['web/theme/base.css', 'a {}\n'],
  ])('%s with %j is as it should be', (name, text) => {
    expect(faultsOf(name, text)).toEqual([]);
  });
});
