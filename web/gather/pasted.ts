/** A text that is one web address and nothing else, as that address. Empty for anything else. */
export function pastedAddress(text: string): string {
  const address = text.trim();
  return /^https?:\/\/\S+$/i.test(address) && URL.canParse(address) ? address : '';
}

/** The addresses of the pictures in pasted rich text, each once. Pictures that lie in the text itself are left out. */
export function pastedPictures(html: string): readonly string[] {
  const addresses = [...html.matchAll(/<img\b[^>]*?\bsrc\s*=\s*(?:"([^"]*)"|'([^']*)')/gi)].map(
    ([, double, single]) => (double ?? single ?? '').replaceAll('&amp;', '&'),
  );
  return [...new Set(addresses)].filter((address) => /^https?:\/\//i.test(address)).slice(0, 50);
}
