/**
 * The targets of a `Link` header with a relation (RFC 8288, 3), as they stand. Relations are compared whatever their case.
 * Linear in the header.
 */
export function linksAs(relation: string, header: string): readonly string[] {
  return header.split(/,(?=\s*<)/).flatMap((link) => {
    const end = link.indexOf('>');
    const start = link.indexOf('<');
    if (start < 0 || end < start) return [];
    const isIt = link
      .slice(end + 1)
      .split(';')
      .map((part) => part.trim().split('='))
      .some(
        ([name = '', value = '']) =>
          name.trim().toLowerCase() === 'rel' && relationsIn(value).includes(relation),
      );
    return isIt ? [link.slice(start + 1, end).trim()] : [];
  });
}

const relationsIn = (value: string): readonly string[] =>
  value.trim().replace(/^"|"$/g, '').toLowerCase().split(/\s+/);
