import { readTyped, type SourceBase } from './read-typed.ts';

/** What the screen asks: a page first, then any number of texts that were typed on it. */
export type SourceRequest =
  | { readonly kind: 'base'; readonly base: SourceBase }
  | { readonly kind: 'typed'; readonly number: number; readonly text: string };

let base: SourceBase | null = null;

self.addEventListener('message', ({ data }: MessageEvent<SourceRequest>) => {
  if (data.kind === 'base') base = data.base;
  else if (base)
    self.postMessage({
      number: data.number,
      reading: readTyped(data.text, base, () => crypto.randomUUID()),
    });
});
