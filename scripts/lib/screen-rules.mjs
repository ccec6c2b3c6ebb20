// What a screen may be drawn with: the controls of web/ui, Tailwind's words, and the few style sheets that say what
// those cannot.
import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';

/** The style sheets that there may be; each says at its head why it is one. */
const SHEETS = new Set([
  'web/theme/theme.css',
  'web/theme/base.css',
  'web/sheet/sheet.css',
  'web/over/over.css',
  'web/measure/hatch.css',
]);
const MOST_LINES = 350;

/** Where the browser's own controls are dressed. */
const DRESSED_IN = 'web/ui/';

/** Controls of the browser's own that look and behave otherwise on each machine, and what stands for them. */
const NATIVE = [
  [/<select\b/, 'Select of web/ui'],
  [/<option\b/, 'Select of web/ui'],
  [/<progress\b/, 'Progress of web/ui'],
  [/<dialog\b/, 'Panel of web/ui'],
  [/\stype="(?:date|time|datetime-local|month|week)"/, 'DateInput of web/ui'],
  [/\stype="checkbox"/, 'Checkbox of web/ui'],
  [/\stype="radio"/, 'OneOf or RadioList of web/ui'],
  [/\stype="range"/, 'Slider of web/ui'],
  [/\stype="color"/, 'ColourField of web/ui'],
  // A slider is no form field to the browser: it would still move.
  [/<fieldset\b[^>]*\sdisabled/, 'FieldSet of web/ui'],
  [/<details\b/, 'Folded of web/ui'],
  [/<datalist\b/, 'FolderInput of web/ui'],
  [/\sonDragStart=|\sdraggable(?!=\{false\})(?=[\s=>/])/, 'useSource of web/drag'],
];

/** Every fault in what the screens under `root` are drawn with, a sentence each. */
export function screenFaults(root) {
  const faults = [];
  let lines = 0;
  for (const file of filesIn(join(root, 'web'))) {
    const name = relative(root, file);
    const text = readFileSync(file, 'utf8');
    if (name.endsWith('.css')) {
      lines += text.split('\n').length - 1;
      if (!SHEETS.has(name)) faults.push(`${name}: styles are said by Tailwind's words in the components.`);
      if (/@apply\b/.test(text))
        faults.push(`${name}: a pattern that comes again is a component, not @apply.`);
    } else if (name.endsWith('.tsx') && !name.endsWith('.test.tsx')) {
      if (name.startsWith(DRESSED_IN)) continue;
      for (const [pattern, instead] of NATIVE)
        if (pattern.test(text))
          faults.push(`${name}: ${pattern.source} is the browser's own; use ${instead}.`);
    }
  }
  if (lines > MOST_LINES) faults.push(`${lines} lines of style by hand; at most ${MOST_LINES} are needed.`);
  return faults;
}

function filesIn(folder) {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    return entry.isDirectory() ? filesIn(path) : /\.(css|tsx)$/.test(entry.name) ? [path] : [];
  });
}
