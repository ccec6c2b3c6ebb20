/** The text of a paste or a drop; a link that is dragged has its address, whatever it is called. */
export function carriedText(data: Pick<DataTransfer, 'getData'>): string {
  const [link = ''] = data
    .getData('text/uri-list')
    .split(/\r?\n/)
    .filter((line) => !line.startsWith('#'));
  return link.trim() || data.getData('text/plain');
}

/** Whether a drag may carry something of that kind: what exactly is only known when it is dropped. */
export function mayCarry(data: Pick<DataTransfer, 'types'>): boolean {
  return ['Files', 'text/plain', 'text/uri-list'].some((type) => data.types.includes(type));
}
