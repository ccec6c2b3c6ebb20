import type { ExternalToast } from 'sonner';

/** What is told in passing, and beside it a way to act on it. */
type Tell = (words: string, more?: ExternalToast) => unknown;

interface Teller {
  readonly tell: Tell;
  readonly tellFault: Tell;
}

let begin: (teller: Teller) => void = () => undefined;
const teller = new Promise<Teller>((resolve) => {
  begin = resolve;
});

/** Said by the list of notices as soon as it is on the screen: what was told before is shown then. */
export const noticesAreShown = (shown: Teller): void => begin(shown);

/** Tells something in passing. The library that draws it comes after the first screen. */
export const toast = Object.assign(
  (words: string, more?: ExternalToast): void => void teller.then(({ tell }) => tell(words, more)),
  {
    error: (words: string, more?: ExternalToast): void =>
      void teller.then(({ tellFault }) => tellFault(words, more)),
  },
);
