import type { FoundPicture, SourceAbout, SourceId } from '#api/gather.ts';
import type { GatherQuestion } from '#core/gather/question.ts';
import type { TextTool } from '../../foreign/texts.ts';
import type { Outbound } from '../../outbound/outbound.ts';

/** What a source is given to work with. */
export interface SourceTools {
  readonly outbound: Outbound;
  readonly texts: TextTool;
  /** Where the service is, such as https://commonfield.example. */
  readonly origin: string;
  readonly signal: AbortSignal;
}

/** One page of a source's answer; `cursor` is the source's own and asks for the next. */
interface Found {
  readonly pictures: readonly FoundPicture[];
  readonly count: number | null;
  readonly cursor: string | null;
}

export interface FoundAlbum {
  readonly id: string;
  readonly name: string;
  readonly files: readonly FoundPicture[];
}

/** A place that pictures are gathered from. A real service is one more file with one of these. */
export interface Source {
  readonly id: Exclude<SourceId, 'web'>;
  readonly name: string;
  /** What it is, in a few words. */
  readonly about: string;
  readonly kind: SourceAbout['kind'];
  /** The first part of its host name among the stand-ins. */
  readonly standIn: string;
  readonly search: (question: GatherQuestion, cursor: string | null, tools: SourceTools) => Promise<Found>;
  /** Albums with their files, for a source that has them. */
  readonly albums?: (tools: SourceTools) => Promise<readonly FoundAlbum[]>;
}
