import { toJsonSchema } from '@valibot/to-json-schema';
import type * as v from 'valibot';
import {
  ArrivalSchema,
  ArrivedSchema,
  AssetChangeSchema,
  AssetCountSchema,
  AssetListSchema,
  AssetSchema,
  FolderListSchema,
  FolderSchema,
  FoldSchema,
  KeepApartSchema,
  LightsSchema,
  LookalikesSchema,
  MadeCutsSchema,
  MoveFolderSchema,
  OwnWordsSchema,
  ReplacedSchema,
  ReplaceSchema,
  TakeBackSchema,
} from '#api/assets.ts';
import { DeskSchema } from '#api/desk.ts';
import {
  DecideSchema,
  EmbedPreviewSchema,
  FoundFilmsSchema,
  HostsSchema,
  KeepEmbedSchema,
  LookSchema,
  LookWishSchema,
  PreviewWishSchema,
  ReadingSchema,
  ReadingWishSchema,
  SaveHostsSchema,
  UndecideSchema,
} from '#api/embeds.ts';
import {
  AddressReadingSchema,
  ClipSchema,
  CloserLookSchema,
  GatheringSchema,
  HandInClipSchema,
  NewClipperSchema,
  ReadAddressSchema,
  SourceAnswerSchema,
  TakeSchema,
} from '#api/gather.ts';
import { JobSchema } from '#api/jobs.ts';
import { LikenessCurveSchema, SampleWishSchema } from '#api/likeness.ts';
import {
  ChangeTraySchema,
  FragmentSchema,
  NewPageSchema,
  PageSchema,
  PreviewSchema,
  SavedPageSchema,
  SavePageSchema,
} from '#api/pages.ts';
import {
  BeginningSchema,
  BeginSchema,
  ChangePasswordSchema,
  ChangePersonSchema,
  ColleagueSchema,
  MadePasswordSchema,
  NewPersonSchema,
  PersonSchema,
  SignInSchema,
} from '#api/people.ts';
import { ProblemSchema } from '#api/problem.ts';
import { RunBeginSchema, RunPreviewSchema, RunSchema } from '#api/runs.ts';
import { NewTargetSchema, TargetSchema } from '#api/targets.ts';
import { HouseRulesSchema } from '#core/page/target.ts';
import { RunOrderSchema } from '#core/run/order.ts';

interface Operation {
  readonly does: string;
  readonly body?: v.GenericSchema;
  readonly answers?: v.GenericSchema;
}

/** Every operation with what it takes and answers. Kept beside the routes; a test asks each of them. */
export const OPERATIONS: Readonly<Record<string, Operation>> = {
  'post /api/session': { does: 'Sign in', body: SignInSchema, answers: PersonSchema },
  'delete /api/session': { does: 'Sign out' },
  'get /api/me': { does: 'Who is signed in', answers: PersonSchema },
  'put /api/me/password': { does: 'Change one’s own password', body: ChangePasswordSchema },
  'get /api/beginning': { does: 'Whether nobody works here yet', answers: BeginningSchema },
  'post /api/beginning': {
    does: 'Begin an empty house: its site owner and its first target',
    body: BeginSchema,
    answers: PersonSchema,
  },
  'get /api/people': { does: 'Who works here' },
  'post /api/people': {
    does: 'Add a person, with a password to hand over',
    body: NewPersonSchema,
    answers: MadePasswordSchema,
  },
  'patch /api/people/{id}': {
    does: 'Give a person another role, or say that they left',
    body: ChangePersonSchema,
    answers: ColleagueSchema,
  },
  'post /api/people/{id}/password': { does: 'Make another password', answers: MadePasswordSchema },
  'get /api/desk': { does: 'What waits', answers: DeskSchema },
  'get /api/assets/{id}/likeness': {
    does: 'How bytes and likeness hang together for a cut',
    answers: LikenessCurveSchema,
  },
  'post /api/assets/{id}/likeness': {
    does: 'Measure one more quality of a cut',
    body: SampleWishSchema,
    answers: LikenessCurveSchema,
  },
  'post /api/run-previews': {
    does: 'What a run over many pieces would do, before anything is done',
    body: RunOrderSchema,
    answers: RunPreviewSchema,
  },
  'post /api/runs': { does: 'Begin a run on what was seen of it', body: RunBeginSchema, answers: RunSchema },
  'get /api/runs': { does: 'The runs of the last month' },
  'get /api/runs/{id}': { does: 'A run with what became of each piece', answers: RunSchema },
  'post /api/runs/{id}/stop': { does: 'Stop a run; what is done stays', answers: RunSchema },
  'post /api/runs/{id}/go-on': { does: 'Go on with a run', answers: RunSchema },
  'post /api/runs/{id}/take-back': { does: 'Take a whole run back', answers: RunSchema },
  'get /api/targets': { does: 'All targets with their house rules' },
  'post /api/targets': { does: 'Make a target', body: NewTargetSchema, answers: TargetSchema },
  'delete /api/targets/{id}': { does: 'Remove a target that no page is for' },
  'post /api/targets/{id}/back': { does: 'Bring a removed target back', answers: TargetSchema },
  'get /api/targets/{id}': { does: 'A target', answers: TargetSchema },
  'put /api/targets/{id}': {
    does: 'Change house rules (If-Match)',
    body: HouseRulesSchema,
    answers: TargetSchema,
  },
  'get /api/embeds/hosts': { does: 'The hosts that the house trusts', answers: HostsSchema },
  'put /api/embeds/hosts': {
    does: 'Change the entries of hosts (If-Match)',
    body: SaveHostsSchema,
    answers: HostsSchema,
  },
  'post /api/embeds/decisions': {
    does: 'Record the decision to trust an address or its host',
    body: DecideSchema,
    answers: HostsSchema,
  },
  'delete /api/embeds/decisions': {
    does: 'Take such a decision back',
    body: UndecideSchema,
    answers: HostsSchema,
  },
  'post /api/embeds/looks': {
    does: 'Ask the other site what a thing is, and whether it lets itself be framed',
    body: LookWishSchema,
    answers: LookSchema,
  },
  'post /api/embeds': { does: 'Put an embed on the shelf', body: KeepEmbedSchema, answers: ArrivedSchema },
  'get /api/embeds/films': { does: 'Ask a film host for films by words', answers: FoundFilmsSchema },
  'post /api/embeds/previews': {
    does: 'Where an embed can be seen live, as readers get it',
    body: PreviewWishSchema,
    answers: EmbedPreviewSchema,
  },
  'post /api/embeds/readings': {
    does: 'Read pasted text or code for a target, and write the code that goes out',
    body: ReadingWishSchema,
    answers: ReadingSchema,
  },
  'get /api/assets': { does: 'Ask the shelf', answers: AssetListSchema },
  'get /api/assets/count': { does: 'How many pieces answer that', answers: AssetCountSchema },
  'get /api/assets/{id}': { does: 'A piece', answers: AssetSchema },
  'patch /api/assets/{id}': {
    does: 'Change a label, name or folder (If-Match)',
    body: AssetChangeSchema,
    answers: AssetSchema,
  },
  'get /api/assets/{id}/lights': {
    does: 'A piece as it came, as a few px: for the contrast of words over it',
    answers: LightsSchema,
  },
  'get /api/assets/{id}/focal': { does: 'Where the computer would put the focal point' },
  'get /api/assets/{id}/cuts': { does: 'The files that were made of a piece', answers: MadeCutsSchema },
  'delete /api/assets/{id}/cuts': {
    does: 'Throw away those of them that nothing needs',
    answers: MadeCutsSchema,
  },
  'get /api/assets/{id}/provenance': { does: 'Where a piece came from, and what was said there' },
  'get /api/assets/{id}/lookalikes': { does: 'Pieces that look like it', answers: LookalikesSchema },
  'post /api/assets/{id}/keep-apart': { does: 'Keep two lookalikes', body: KeepApartSchema },
  'delete /api/assets/{id}/keep-apart/{other}': { does: 'Show two as lookalikes again' },
  'post /api/assets/{id}/fold': { does: 'Fold a lookalike away', body: FoldSchema, answers: AssetSchema },
  'get /api/assets/{id}/own-words': {
    does: 'The pages on which it has an alt text or a caption of their own',
    answers: OwnWordsSchema,
  },
  'post /api/assets/{id}/replace': {
    does: 'Put another piece in its place on every page',
    body: ReplaceSchema,
    answers: ReplacedSchema,
  },
  'post /api/assets/{id}/replace/take-back': {
    does: 'Take a replacement back',
    body: TakeBackSchema,
    answers: ReplacedSchema,
  },
  'delete /api/assets/{id}': { does: 'Throw a piece away; kept for 30 days', answers: AssetSchema },
  'post /api/assets/{id}/bring-back': { does: 'Bring a piece back', answers: AssetSchema },
  'get /api/pins': { does: 'The pieces that one keeps at hand' },
  'put /api/pins/{id}': { does: 'Keep a piece at hand' },
  'delete /api/pins/{id}': { does: 'Unpin' },
  'get /api/sources': { does: 'The places that pictures are gathered from' },
  'get /api/sources/{id}/pictures': { does: 'Ask a source', answers: SourceAnswerSchema },
  'get /api/sources/{id}/albums': { does: 'The albums of a drive' },
  'get /api/sources/{id}/albums/{albumId}': { does: 'The files of an album', answers: SourceAnswerSchema },
  'post /api/readings': {
    does: 'Read an address for pictures',
    body: ReadAddressSchema,
    answers: AddressReadingSchema,
  },
  'post /api/closer-looks': { does: 'Look closer at a result', answers: CloserLookSchema },
  'post /api/gatherings': { does: 'Take found pictures', body: TakeSchema, answers: GatheringSchema },
  'get /api/gatherings': { does: 'Gatherings of the last hour' },
  'get /api/gatherings/{id}': { does: 'How far a gathering is', answers: GatheringSchema },
  'post /api/gatherings/{id}/stop': { does: 'Stop a gathering', answers: GatheringSchema },
  'get /api/clippers': { does: 'The clippers that work' },
  'post /api/clippers': { does: 'Make a clipper', answers: NewClipperSchema },
  'delete /api/clippers/{id}': { does: 'Call a clipper back' },
  'post /api/clips': { does: 'Hand in a page with a clipper', body: HandInClipSchema },
  'get /api/clips': { does: 'Clips that wait' },
  'post /api/clips/{id}/open': { does: 'Open a clip', answers: ClipSchema },
  'get /api/folders': { does: 'All folders', answers: FolderListSchema },
  'post /api/folders': { does: 'Make a folder', body: FolderSchema, answers: FolderSchema },
  'post /api/folders/move': {
    does: 'Move or rename a folder with all that lies in it',
    body: MoveFolderSchema,
    answers: FolderSchema,
  },
  'post /api/folders/remove': { does: 'Remove an empty folder', body: FolderSchema },
  'post /api/uploads': { does: 'Begin a resumable upload (tus 1.0)' },
  'post /api/arrivals': { does: 'Take in a finished upload', body: ArrivalSchema, answers: ArrivedSchema },
  'get /api/pages': { does: 'All pages' },
  'post /api/pages': { does: 'Begin a page', body: NewPageSchema },
  'get /api/pages/{id}': { does: 'A page with its pieces', answers: PageSchema },
  'put /api/pages/{id}': { does: 'Save a page (If-Match)', body: SavePageSchema, answers: SavedPageSchema },
  'post /api/pages/{id}/tray': { does: 'Put pieces on a tray, or take them off', body: ChangeTraySchema },
  'get /api/pages/{id}/findings': { does: 'The findings of a page' },
  'get /api/pages/{id}/preview': { does: 'Where its proof can be seen', answers: PreviewSchema },
  'get /api/pages/{id}/fragment': { does: 'The page as HTML', answers: FragmentSchema },
  'get /api/pages/{id}/one-file': { does: 'The page as one file with its pictures in it, to look at' },
  'post /api/pages/{id}/take-away': { does: 'Order the page as a ZIP', answers: JobSchema },
  'get /api/jobs/{id}': { does: 'How far work is', answers: JobSchema },
  'get /api/jobs/{id}/events': { does: 'Progress as server-sent events' },
  'post /api/jobs/{id}/stop': { does: 'Stop work', answers: JobSchema },
  'get /api/jobs/{id}/file': { does: 'The file that work made' },
};

/** OpenAPI 3.1 of everything under /api. */
export function openApi(): unknown {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const [key, operation] of Object.entries(OPERATIONS)) {
    const [method = '', path = ''] = key.split(' ');
    paths[path] = { ...paths[path], [method]: describeOperation(operation, path) };
  }
  return { openapi: '3.1.0', info: { title: 'Placard', version: '1' }, paths };
}

function describeOperation(operation: Operation, path: string): unknown {
  const names = [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => name);
  return {
    summary: operation.does,
    parameters: names.map((name) => ({ name, in: 'path', required: true, schema: { type: 'string' } })),
    ...(operation.body
      ? {
          requestBody: {
            required: true,
            content: { 'application/json': { schema: schemaOf(operation.body) } },
          },
        }
      : {}),
    responses: {
      default: {
        description: 'A problem (RFC 9457)',
        content: { 'application/problem+json': { schema: schemaOf(ProblemSchema) } },
      },
      '2XX': {
        description: 'Done',
        ...(operation.answers
          ? { content: { 'application/json': { schema: schemaOf(operation.answers) } } }
          : {}),
      },
    },
  };
}

function schemaOf(schema: v.GenericSchema): unknown {
  return toJsonSchema(schema, { errorMode: 'ignore' });
}
