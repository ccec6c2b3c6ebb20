const SILENT = new Set(
  'head style meta link title base template colgroup col area source track param wbr noscript datalist'.split(
    ' ',
  ),
);

/** Whether an element of HTML says nothing to a reader of the page that it stands in. */
export function isSilent(name: string): boolean {
  return SILENT.has(name);
}
