import { holdsPieces } from '../drag/dragged.ts';

/** The text of a paste or a drop; a link that is dragged has its address, whatever it is called. */
export function carriedText(data: Pick<DataTransfer, 'getData'>): string {
  const [link = ''] = data
    .getData('text/uri-list')
    .split(/\r?\n/)
    .filter((line) => !line.startsWith('#'));
  return link.trim() || data.getData('text/plain');
}

/**
 * Whether a drag may carry something from outside: what exactly is only known when it is dropped. Pieces of our own
 * that are dragged may have an address with them, too.
 */
export function mayCarry(data: Pick<DataTransfer, 'types'>): boolean {
  return (
    !holdsPieces(data) && ['Files', 'text/plain', 'text/uri-list'].some((type) => data.types.includes(type))
  );
}
