/** A web address that was pasted as such: one line of text and nothing else. Empty for anything else. */
export function pastedAddress(data: Pick<DataTransfer, 'getData'> | null): string {
  const text = data?.getData('text/plain').trim() ?? '';
  return /^https?:\/\/\S+$/i.test(text) && URL.canParse(text) ? text : '';
}

/** The addresses of the pictures in pasted rich text, each once. Pictures that lie in the text itself are left out. */
export function pastedPictures(html: string): readonly string[] {
  const addresses = [...html.matchAll(/<img\b[^>]*?\bsrc\s*=\s*(?:"([^"]*)"|'([^']*)')/gi)].map(
    ([, double, single]) => (double ?? single ?? '').replaceAll('&amp;', '&'),
  );
  return [...new Set(addresses)].filter((address) => /^https?:\/\//i.test(address)).slice(0, 50);
}
