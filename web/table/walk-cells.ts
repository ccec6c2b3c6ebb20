/** What takes the focus inside a cell. */
const CONTROLS = 'a[href], button:not(:disabled), input:not(:disabled), [tabindex="0"]';

const STEPS: Readonly<Record<string, readonly [rows: number, columns: number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

/** Whether an arrow belongs to what has the focus: text is walked in by arrows itself. */
function isWithinText(target: Element): boolean {
  return target.matches(
    'input:not([type="checkbox"]), textarea, [role="combobox"], [contenteditable="true"]',
  );
}

/**
 * The cell to which an arrow key leads from where the focus is, its control if it has one; null where there is none, or
 * where the key belongs to what has the focus.
 */
export function cellAfter(target: EventTarget | null, key: string): HTMLElement | null {
  const step = STEPS[key];
  if (!step || !(target instanceof Element) || isWithinText(target)) return null;
  const cell = target.closest('td, th');
  const row = cell?.closest('tr');
  const table = row?.closest('table');
  if (!(cell instanceof HTMLTableCellElement) || !row || !table) return null;
  const rows = [...table.rows].filter((one) => one.ariaHidden !== 'true');
  const next = rows[rows.indexOf(row) + step[0]]?.cells[cell.cellIndex + step[1]];
  if (!next || next === cell) return null;
  const control = next.querySelector<HTMLElement>(CONTROLS);
  return control ?? next;
}
