import type { DocumentFacts } from '../document/formats.ts';
import type { EmbedKind } from '../embed/host.ts';
import type { FilmFacts } from '../film/facts.ts';
import type { Change } from '../media/recipe-says.ts';
import type { WORKS } from '../rights/label.ts';

/** What was made, as a credit names it. */
export type Made = (typeof WORKS)[number] | 'document' | EmbedKind;

/** The words that go out beside what people wrote, in one language. Each is a whole, so that no sentence is put together from parts of another language. */
export interface Messages {
  /** A title as this language quotes one, with what is quoted in it in the inner marks; the empty text for none. */
  readonly quoted: (title: string) => string;
  /** As a credit or a title begins: "Photo: ...". */
  readonly made: Readonly<Record<Made, string>>;
  /** "cropped and toned"; the empty text for no change. */
  readonly changed: (changes: readonly Change[]) => string;
  readonly licensedTo: (name: string) => string;
  /** On which day it was had from an agency (YYYY-MM-DD). */
  readonly accessed: (day: string) => string;
  /** Said of a picture that is a link to its larger file. */
  readonly opensLarger: string;
  /** What words lead to that is a picture. */
  readonly picture: string;
  /** Said in a link that opens a new window. */
  readonly opensNewWindow: string;
  /** What moves the line between a picture of before and one of after. */
  readonly divider: string;
  /** What is done in a picture that is shown large. */
  readonly large: { readonly close: string; readonly next: string; readonly back: string };
  /** What a long description is called where it is folded away. */
  readonly descriptionOf: (title: string) => string;
  readonly untitledPage: string;
  /** What a folded section says that nobody named. */
  readonly more: string;
  /** What a list of the page's headings is called. */
  readonly contents: string;
  /** What a table is called that nobody named. */
  readonly table: string;
  /** What the file of a document is: "PDF, 12 pages, 2.3 MB". */
  readonly document: (facts: DocumentFacts) => string;
  /** What the file of a film or a recording is: "MP4, 1:12, 2.3 MB". */
  readonly film: (facts: FilmFacts) => string;
  /** What all that is said in a film is called where it is to be read, and its parts. */
  readonly transcript: string;
  readonly chapters: string;
  /** What a screen reader says before a frame that nobody named. */
  readonly embedOf: (kind: EmbedKind, host: string) => string;
  /** What a poster asks for: to watch, to open; `title` is the empty text where there is none. */
  readonly invitation: (kind: EmbedKind, title: string, host: string) => string;
  /** What a link leads to: "film at Lanternreel". */
  readonly linkedAt: (kind: EmbedKind, host: string) => string;
  readonly credits: {
    /** The link to all credits of a page. */
    readonly link: string;
    readonly titleOf: (page: string) => string;
    readonly none: string;
    readonly back: string;
  };
}
