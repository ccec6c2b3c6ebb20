/** A text that is one web address and nothing else, as that address. Empty for anything else. */
export function pastedAddress(text: string): string {
  const address = text.trim();
  return /^https?:\/\/\S+$/i.test(address) && URL.canParse(address) ? address : '';
}
