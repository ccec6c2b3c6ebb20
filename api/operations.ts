import * as v from 'valibot';
import { MessageChoicesSchema } from '#core/notify/choices.ts';
import { HouseRulesSchema } from '#core/page/target.ts';
import { HouseLicenceSchema } from '#core/rights/house-licence.ts';
import { RunOrderSchema } from '#core/run/order.ts';
import {
  ArrivalSchema,
  ArrivedFileSchema,
  ArrivedSchema,
  AssetChangeSchema,
  AssetCountSchema,
  AssetListSchema,
  AssetQuerySchema,
  AssetSchema,
  FocalSchema,
  FolderListSchema,
  FolderSchema,
  FoldSchema,
  InUseQuerySchema,
  InUseSchema,
  KeepApartSchema,
  LightsSchema,
  LookalikesSchema,
  MadeCutsSchema,
  MoveFolderSchema,
  OwnWordsSchema,
  ReplacedSchema,
  ReplaceSchema,
  TakeBackSchema,
} from './assets.ts';
import { AuditListSchema, AuditQuerySchema } from './audit.ts';
import { CaptionTrackSchema, CaptionTracksSchema, SaveCaptionsSchema } from './captions.ts';
import {
  DeliveriesSchema,
  DeliverySchema,
  ForeseenSchema,
  LearnedSchema,
  PastedAtSchema,
  ProbeWishSchema,
  SendingPlanWishSchema,
  SentCodeSchema,
  TokenSchema,
  TokenSetSchema,
  ToTargetSchema,
} from './deliveries.ts';
import { DeskSchema, GiveErrandSchema } from './desk.ts';
import {
  DecideSchema,
  EmbedPreviewSchema,
  FilmQuerySchema,
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
} from './embeds.ts';
import { FigureCopiedSchema, FigureSchema, FigureWishSchema } from './figures.ts';
import {
  CaptionsInsideSchema,
  FilmHostsSchema,
  FilmWorkSchema,
  HostTokenSchema,
  MoveFilmSchema,
} from './films.ts';
import {
  AddressReadingSchema,
  AlbumSchema,
  ClipperSchema,
  ClipSchema,
  CloserLookSchema,
  CloserWishSchema,
  GatheringSchema,
  GatherQuerySchema,
  HandInClipSchema,
  NewClipperSchema,
  ProvenanceSchema,
  ReadAddressSchema,
  SidecarSchema,
  SidecarTakenSchema,
  SourceAnswerSchema,
  SourceSchema,
  TakeSchema,
} from './gather.ts';
import {
  BegunSchema,
  BringInManySchema,
  BringInSchema,
  InheritedFileSchema,
  InheritedListSchema,
  InheritedPageSchema,
  NewInheritedSchema,
} from './inherited.ts';
import { JobSchema } from './jobs.ts';
import { LikenessCurveSchema, LikenessQuerySchema, SampleWishSchema } from './likeness.ts';
import { HookSecretSchema, MessageTrialSchema, OwnMessagesSchema } from './notify.ts';
import {
  AtPageSchema,
  ChangeTraySchema,
  FragmentQuerySchema,
  FragmentSchema,
  KeptStateSchema,
  NameVersionSchema,
  NewPageSchema,
  NewTranslationSchema,
  PageAddressesSchema,
  PageListQuerySchema,
  PageListSchema,
  PageSchema,
  PageVersionListSchema,
  PageVersionSchema,
  PreviewSchema,
  SavedPageSchema,
  SavePageSchema,
  SistersSchema,
  SittingSchema,
  TranslatedSchema,
  TranslatedVersionSchema,
} from './pages.ts';
import { ChangePartSchema, NewPartSchema, PartChangedSchema, PartListSchema, PartSchema } from './parts.ts';
import {
  BeginningSchema,
  BeginSchema,
  ChangePasswordSchema,
  ChangePersonSchema,
  ColleagueSchema,
  DemoPersonSchema,
  MadePasswordSchema,
  NamedPeopleSchema,
  NewPersonSchema,
  OwnSessionsSchema,
  PersonSchema,
  SignInSchema,
} from './people.ts';
import { MadeSchema } from './problem.ts';
import {
  BuySchema,
  OffersSchema,
  PurchaseSchema,
  SpendingLimitsSchema,
  SpendingSchema,
} from './purchases.ts';
import { ReportSchema } from './report.ts';
import {
  HistorySchema,
  JudgedUsesSchema,
  KeepLabelSchema,
  KeptLicenceSchema,
  LedgerChangedSchema,
  LedgerChangesSchema,
  LedgerCountSchema,
  LedgerFoundSchema,
  LedgerLookupSchema,
  LedgerQuerySchema,
  LedgerSchema,
  SaidDifferencesSchema,
  WhereUsedQuerySchema,
  WhereUsedSchema,
} from './rights.ts';
import { RunBeginSchema, RunPreviewSchema, RunSchema, RunSummarySchema } from './runs.ts';
import { NewTargetSchema, TargetSchema } from './targets.ts';

import { ProposeSchema, WordingQuerySchema, WordingSchema } from './wording.ts';

type Method = 'get' | 'post' | 'put' | 'patch' | 'delete';

export interface Operation {
  readonly does: string;
  readonly query?: v.GenericSchema;
  readonly body?: v.GenericSchema;
  /** What comes back as JSON; without it nothing does, or what is no JSON. */
  readonly answers?: v.GenericSchema;
}

/**
 * Every operation under /api with what it takes and answers. The server registers its routes by these keys, the web
 * asks by them, and the description in OpenAPI is made of them.
 */
export const OPERATIONS = {
  'post /session': { does: 'Sign in', body: SignInSchema, answers: PersonSchema },
  'delete /session': { does: 'Sign out' },
  'get /me': { does: 'Who is signed in', answers: PersonSchema },
  'put /me/password': { does: 'Change one’s own password', body: ChangePasswordSchema },
  'get /me/sessions': { does: 'Where one is signed in', answers: OwnSessionsSchema },
  'delete /me/sessions/{key}': { does: 'End a sign-in of one’s own' },
  'get /me/messages': { does: 'What one is told, and by which ways', answers: OwnMessagesSchema },
  'put /me/messages': {
    does: 'Choose what one is told',
    body: MessageChoicesSchema,
    answers: OwnMessagesSchema,
  },
  'post /me/messages/secret': {
    does: 'Make what one’s web hooks are signed by, in place of what was before',
    answers: HookSecretSchema,
  },
  'post /me/messages/trial': {
    does: 'Be told something at once, to see whether it comes',
    body: MessageTrialSchema,
  },
  'get /demo-people': {
    does: 'The people of the demo; nobody elsewhere',
    answers: v.array(DemoPersonSchema),
  },
  'get /beginning': { does: 'Whether nobody works here yet', answers: BeginningSchema },
  'post /beginning': {
    does: 'Begin an empty house: its site owner and its first target',
    body: BeginSchema,
    answers: PersonSchema,
  },
  'get /people/names': { does: 'Those who work here, by name', answers: NamedPeopleSchema },
  'get /people': { does: 'Who works here', answers: v.array(ColleagueSchema) },
  'post /people': {
    does: 'Add a person, with a password to hand over',
    body: NewPersonSchema,
    answers: MadePasswordSchema,
  },
  'patch /people/{id}': {
    does: 'Give a person another role, or say that they left',
    body: ChangePersonSchema,
    answers: ColleagueSchema,
  },
  'post /people/{id}/password': { does: 'Make another password', answers: MadePasswordSchema },
  'get /audit': { query: AuditQuerySchema, does: 'Search the log', answers: AuditListSchema },
  'get /audit.csv': { query: AuditQuerySchema, does: 'Take the log away as CSV' },
  'get /desk': { does: 'What waits', answers: DeskSchema },
  'put /desk/errands/{id}': { does: 'Give an errand to somebody, with a note', body: GiveErrandSchema },
  'delete /desk/errands/{id}': { does: 'Take an errand back' },
  'get /assets/{id}/likeness': {
    query: LikenessQuerySchema,
    does: 'How bytes and likeness hang together for a cut',
    answers: LikenessCurveSchema,
  },
  'post /assets/{id}/likeness': {
    does: 'Measure one more quality of a cut',
    body: SampleWishSchema,
    answers: LikenessCurveSchema,
  },
  'post /run-previews': {
    does: 'What a run over many pieces would do, before anything is done',
    body: RunOrderSchema,
    answers: RunPreviewSchema,
  },
  'post /runs': { does: 'Begin a run on what was seen of it', body: RunBeginSchema, answers: RunSchema },
  'get /runs': { does: 'The runs of the last month', answers: v.array(RunSummarySchema) },
  'get /runs/{id}': { does: 'A run with what became of each piece', answers: RunSchema },
  'post /runs/{id}/stop': { does: 'Stop a run; what is done stays', answers: RunSchema },
  'post /runs/{id}/go-on': { does: 'Go on with a run', answers: RunSchema },
  'post /runs/{id}/take-back': { does: 'Take a whole run back', answers: RunSchema },
  'get /targets': { does: 'All targets with their house rules', answers: v.array(TargetSchema) },
  'post /targets': { does: 'Make a target', body: NewTargetSchema, answers: TargetSchema },
  'delete /targets/{id}': { does: 'Remove a target that no page is for' },
  'post /targets/{id}/back': { does: 'Bring a removed target back', answers: TargetSchema },
  'get /targets/{id}': { does: 'A target', answers: TargetSchema },
  'put /targets/{id}': {
    does: 'Change house rules (If-Match)',
    body: HouseRulesSchema,
    answers: TargetSchema,
  },
  'get /targets/{id}/probe': {
    does: 'The code of a probe, to be pasted at a target',
    answers: SentCodeSchema,
  },
  'post /targets/{id}/probe': {
    does: 'Learn what a target keeps, by a probe that is sent or was pasted there',
    body: ProbeWishSchema,
    answers: LearnedSchema,
  },
  'get /report': { does: 'How all pages stood, day by day, and each of them today', answers: ReportSchema },
  'get /targets/{id}/token': { does: 'Since when a target has a token', answers: TokenSetSchema },
  'put /targets/{id}/token': {
    does: 'Set what opens a target to the house; it is never answered again',
    body: TokenSchema,
    answers: TokenSetSchema,
  },
  'delete /targets/{id}/token': { does: 'Remove what opens a target to the house' },
  'get /pages/{id}/deliveries': {
    does: 'The sendings of a page, and whether it can be sent',
    query: ToTargetSchema,
    answers: DeliveriesSchema,
  },
  'get /pages/{id}/foreseen': {
    does: 'What would become of a page if it was sent now',
    query: ToTargetSchema,
    answers: ForeseenSchema,
  },
  'post /pages/{id}/deliveries': {
    does: 'Send a page to its target, or to another',
    query: ToTargetSchema,
    answers: DeliverySchema,
  },
  'get /inherited': {
    does: 'Pages of other makers that were read or brought in',
    answers: InheritedListSchema,
  },
  'post /inherited': {
    does: 'Read pages of other makers, by address, section or as HTML',
    body: NewInheritedSchema,
    answers: BegunSchema,
  },
  'post /inherited/files': {
    does: 'Read the pages of a file: HTML, or a ZIP with pages and pictures',
    query: InheritedFileSchema,
    answers: BegunSchema,
  },
  'get /inherited/{id}': {
    does: 'A page of another maker: its faults, and what becomes of it',
    answers: InheritedPageSchema,
  },
  'get /inherited/{id}/html': { does: 'A page of another maker as it was, as a file' },
  'post /inherited/bring-in': {
    does: 'Bring several pages in that were read',
    body: BringInManySchema,
    answers: InheritedListSchema,
  },
  'post /inherited/{id}/bring-in': {
    does: 'Bring a page in that was read',
    body: BringInSchema,
    answers: InheritedPageSchema,
  },
  'post /inherited/{id}/take-back': {
    does: 'Take back what was brought in',
    answers: InheritedPageSchema,
  },
  'delete /inherited/{id}': { does: 'Put away what was read' },
  'put /pages/{id}/plan': {
    does: 'Plan when a page goes out and is taken down',
    body: SendingPlanWishSchema,
    answers: DeliveriesSchema,
  },
  'delete /pages/{id}/plan': { does: 'Cancel what is planned for a page', answers: DeliveriesSchema },
  'get /deliveries/{id}': { does: 'A sending, and what was found there', answers: DeliverySchema },
  'get /deliveries/{id}/code': { does: 'The code of a sending, as it is pasted', answers: SentCodeSchema },
  'put /deliveries/{id}/address': {
    does: 'Say where a page was pasted, and read it back from there',
    body: PastedAtSchema,
    answers: DeliverySchema,
  },
  'post /deliveries/{id}/read-back': {
    does: 'Read a page back from where it was sent',
    answers: DeliverySchema,
  },
  'post /deliveries/{id}/evidence': {
    does: 'Order what was live by a sending to be packed and signed',
    answers: JobSchema,
  },
  'post /deliveries/{id}/take-down': {
    does: 'Take a page down where it was sent',
    answers: DeliverySchema,
  },
  'get /embeds/hosts': { does: 'The hosts that the house trusts', answers: HostsSchema },
  'put /embeds/hosts': {
    does: 'Change the entries of hosts (If-Match)',
    body: SaveHostsSchema,
    answers: HostsSchema,
  },
  'post /embeds/decisions': {
    does: 'Record the decision to trust an address or its host',
    body: DecideSchema,
    answers: HostsSchema,
  },
  'delete /embeds/decisions': {
    does: 'Take such a decision back',
    body: UndecideSchema,
    answers: HostsSchema,
  },
  'post /embeds/looks': {
    does: 'Ask the other site what a thing is, and whether it lets itself be framed',
    body: LookWishSchema,
    answers: LookSchema,
  },
  'post /embeds': { does: 'Put an embed on the shelf', body: KeepEmbedSchema, answers: ArrivedSchema },
  'get /embeds/films': {
    query: FilmQuerySchema,
    does: 'Ask a film host for films by words',
    answers: FoundFilmsSchema,
  },
  'post /embeds/previews': {
    does: 'Where an embed can be seen live, as readers get it',
    body: PreviewWishSchema,
    answers: EmbedPreviewSchema,
  },
  'post /embeds/readings': {
    does: 'Read pasted text or code for a target, and write the code that goes out',
    body: ReadingWishSchema,
    answers: ReadingSchema,
  },
  'get /assets': { query: AssetQuerySchema, does: 'Ask the shelf', answers: AssetListSchema },
  'get /assets/count': {
    query: AssetQuerySchema,
    does: 'How many pieces answer that',
    answers: AssetCountSchema,
  },
  'get /in-use': {
    query: InUseQuerySchema,
    does: 'What labels say already of a field',
    answers: InUseSchema,
  },
  'get /assets/{id}': { does: 'A piece', answers: AssetSchema },
  'patch /assets/{id}': {
    does: 'Change a label, name or folder (If-Match)',
    body: AssetChangeSchema,
    answers: AssetSchema,
  },
  'get /assets/{id}/lights': {
    does: 'A piece as it came, as a few px: for the contrast of words over it',
    answers: LightsSchema,
  },
  'get /assets/{id}/focal': { does: 'Where the computer would put the focal point', answers: FocalSchema },
  'get /assets/{id}/cuts': { does: 'The files that were made of a piece', answers: MadeCutsSchema },
  'delete /assets/{id}/cuts': {
    does: 'Throw away those of them that nothing needs',
    answers: MadeCutsSchema,
  },
  'get /wording': {
    query: WordingQuerySchema,
    does: 'The pieces of a wording round',
    answers: WordingSchema,
  },
  'post /assets/{id}/proposals': {
    does: 'Propose an alt text for somebody else’s piece',
    body: ProposeSchema,
  },
  'delete /proposals/{id}': { does: 'Take a proposal off the list, once it was taken or is not wanted' },
  'get /licences': { does: 'The licences of the house', answers: v.array(KeptLicenceSchema) },
  'put /licences/{id}': {
    does: 'Make or change a licence of the house',
    body: HouseLicenceSchema,
    answers: KeptLicenceSchema,
  },
  'delete /licences/{id}': { does: 'Remove a licence of the house that no piece carries' },
  'get /rights': { query: LedgerQuerySchema, does: 'Ask the ledger of rights', answers: LedgerSchema },
  'get /rights/count': {
    query: LedgerQuerySchema,
    does: 'How many pieces answer that',
    answers: LedgerCountSchema,
  },
  'get /rights.csv': { query: LedgerQuerySchema, does: 'Take the ledger of rights away as CSV' },
  'get /rights.json': { query: LedgerQuerySchema, does: 'Take the ledger of rights away as JSON' },
  'post /rights/lookups': {
    does: 'How the pieces stand that a ledger names',
    body: LedgerLookupSchema,
    answers: LedgerFoundSchema,
  },
  'post /rights/changes': {
    does: 'Change the labels of many pieces, each on its version',
    body: LedgerChangesSchema,
    answers: LedgerChangedSchema,
  },
  'get /assets/{id}/uses': {
    does: 'The pages that a piece stands on, and whether it may stand there',
    answers: JudgedUsesSchema,
  },
  'get /where-used': {
    does: 'The pages on which stands what has a licence, comes from a host, or was brought in by somebody',
    query: WhereUsedQuerySchema,
    answers: WhereUsedSchema,
  },
  'get /assets/{id}/film': {
    does: 'What was heard in a film, and how far its making is',
    answers: FilmWorkSchema,
  },
  'post /assets/{id}/film/make': {
    does: 'Make a film for the web, or go on with it',
    answers: FilmWorkSchema,
  },
  'post /assets/{id}/film-of-it': {
    does: 'Make a film of an animated picture, as a piece of its own',
    answers: AssetSchema,
  },
  'get /film-hosts': {
    does: 'The hosts that take films, and whether the house is known there',
    answers: FilmHostsSchema,
  },
  'put /film-hosts/{id}/token': {
    does: 'Keep what opens a film host',
    body: HostTokenSchema,
    answers: FilmHostsSchema,
  },
  'post /assets/{id}/film/move': {
    does: 'Move a film to a film host; what plays there takes its place on every page',
    body: MoveFilmSchema,
    answers: JobSchema,
  },
  'get /assets/{id}/film/inside/{at}': {
    does: 'The captions that lie inside the file of a film, as WebVTT',
    answers: CaptionsInsideSchema,
  },
  'post /assets/{id}/film/stop': { does: 'Stop making a film; what is made stays', answers: FilmWorkSchema },
  'get /assets/{id}/tracks': {
    does: 'The captions, chapters and transcripts of a film, by language',
    answers: CaptionTracksSchema,
  },
  'put /assets/{id}/tracks/{kind}/{language}': {
    does: 'Keep the captions, chapters or transcript of a film in a language, on the version that they were made from; 0 for new ones',
    body: SaveCaptionsSchema,
    answers: CaptionTrackSchema,
  },
  'delete /assets/{id}/tracks/{kind}/{language}': {
    does: 'Remove the captions, chapters or transcript of a film in a language',
  },
  'get /assets/{id}/offers': { does: 'What the original of a comp costs', answers: OffersSchema },
  'get /purchases': { does: 'What was bought in the last two months', answers: v.array(PurchaseSchema) },
  'post /purchases': { does: 'Buy the original of a comp', body: BuySchema, answers: PurchaseSchema },
  'get /purchases/{id}': { does: 'How far a purchase is', answers: PurchaseSchema },
  'post /purchases/{id}/go-on': { does: 'Go on with a purchase that halted', answers: PurchaseSchema },
  'post /purchases/{id}/put-in-place': {
    does: 'Put a bought original in the place of its comp',
    answers: PurchaseSchema,
  },
  'get /spending': { does: 'Who may spend how much, and what one has spent', answers: SpendingSchema },
  'put /spending': {
    does: 'Say who may spend how much a month',
    body: SpendingLimitsSchema,
    answers: SpendingSchema,
  },
  'get /assets/{id}/history': { does: 'Who said what of a piece, and when', answers: HistorySchema },
  'get /assets/{id}/differences': {
    does: 'What its file and its source say otherwise than its label',
    answers: SaidDifferencesSchema,
  },
  'put /assets/{id}/differences': {
    does: 'Say that the label is right all the same',
    body: KeepLabelSchema,
  },
  'get /assets/{id}/figure': {
    query: FigureWishSchema,
    does: 'One piece with its credit, for use elsewhere',
    answers: FigureSchema,
  },
  'post /assets/{id}/figure/copied': {
    does: 'Tell that one was copied for use elsewhere',
    body: FigureCopiedSchema,
  },
  'get /assets/{id}/figure.zip': {
    query: FigureWishSchema,
    does: 'The files that its code asks for, with the label in each',
  },
  'get /assets/{id}/provenance': {
    does: 'Where a piece came from, and what was said there',
    answers: v.array(ProvenanceSchema),
  },
  'get /assets/{id}/lookalikes': { does: 'Pieces that look like it', answers: LookalikesSchema },
  'post /assets/{id}/keep-apart': { does: 'Keep two lookalikes', body: KeepApartSchema },
  'delete /assets/{id}/keep-apart/{other}': { does: 'Show two as lookalikes again' },
  'post /assets/{id}/fold': { does: 'Fold a lookalike away', body: FoldSchema, answers: AssetSchema },
  'get /assets/{id}/own-words': {
    does: 'The pages on which it has an alt text or a caption of their own',
    answers: OwnWordsSchema,
  },
  'post /assets/{id}/replace': {
    does: 'Put another piece in its place on every page',
    body: ReplaceSchema,
    answers: ReplacedSchema,
  },
  'post /assets/{id}/replace/take-back': {
    does: 'Take a replacement back',
    body: TakeBackSchema,
    answers: ReplacedSchema,
  },
  'delete /assets/{id}': { does: 'Throw a piece away; kept for 30 days', answers: AssetSchema },
  'post /assets/{id}/bring-back': { does: 'Bring a piece back', answers: AssetSchema },
  'get /pins': { does: 'The pieces that one keeps at hand', answers: v.array(v.string()) },
  'put /pins/{id}': { does: 'Keep a piece at hand' },
  'delete /pins/{id}': { does: 'Unpin' },
  'get /sources': { does: 'The places that pictures are gathered from', answers: v.array(SourceSchema) },
  'get /sources/{id}/pictures': {
    query: GatherQuerySchema,
    does: 'Ask a source',
    answers: SourceAnswerSchema,
  },
  'get /sources/{id}/albums': { does: 'The albums of a drive', answers: v.array(AlbumSchema) },
  'get /sources/{id}/albums/{albumId}': { does: 'The files of an album', answers: SourceAnswerSchema },
  'post /readings': {
    does: 'Read an address for pictures',
    body: ReadAddressSchema,
    answers: AddressReadingSchema,
  },
  'post /closer-looks': {
    does: 'Look closer at a result',
    body: CloserWishSchema,
    answers: CloserLookSchema,
  },
  'post /gatherings': { does: 'Take found pictures', body: TakeSchema, answers: GatheringSchema },
  'get /gatherings': { does: 'Gatherings of the last hour', answers: v.array(GatheringSchema) },
  'get /gatherings/{id}': { does: 'How far a gathering is', answers: GatheringSchema },
  'post /gatherings/{id}/stop': { does: 'Stop a gathering', answers: GatheringSchema },
  'get /clippers': { does: 'The clippers that work', answers: v.array(ClipperSchema) },
  'post /clippers': { does: 'Make a clipper', answers: NewClipperSchema },
  'delete /clippers/{id}': { does: 'Call a clipper back' },
  'post /clips': { does: 'Hand in a page with a clipper', body: HandInClipSchema, answers: MadeSchema },
  'get /clips': { does: 'Clips that wait', answers: v.array(ClipSchema) },
  'post /clips/{id}/open': { does: 'Open a clip', answers: ClipSchema },
  'get /folders': { does: 'All folders', answers: FolderListSchema },
  'post /folders': { does: 'Make a folder', body: FolderSchema, answers: FolderSchema },
  'post /folders/move': {
    does: 'Move or rename a folder with all that lies in it',
    body: MoveFolderSchema,
    answers: FolderSchema,
  },
  'post /folders/remove': { does: 'Remove an empty folder', body: FolderSchema },
  'post /uploads': { does: 'Begin a resumable upload (tus 1.0)' },
  'post /sidecars': {
    does: 'Take a sidecar in whose picture is held',
    body: SidecarSchema,
    answers: SidecarTakenSchema,
  },
  'get /assets/{id}/label.xmp': { query: FigureWishSchema, does: 'A label as a sidecar (XMP)' },
  'post /arrivals': { does: 'Take in a finished upload', body: ArrivalSchema, answers: ArrivedFileSchema },
  'get /pages': {
    does: 'Pages, last changed first, with how many there are',
    query: PageListQuerySchema,
    answers: PageListSchema,
  },
  'get /pages/addresses': { does: 'Where pages stand on their sites', answers: PageAddressesSchema },
  'post /pages': { does: 'Begin a page', body: NewPageSchema, answers: MadeSchema },
  'get /pages/{id}': { does: 'A page with its pieces', answers: PageSchema },
  'put /pages/{id}': { does: 'Save a page (If-Match)', body: SavePageSchema, answers: SavedPageSchema },
  'post /pages/{id}/tray': { does: 'Put pieces on a tray, or take them off', body: ChangeTraySchema },
  'get /pages/{id}/versions': { does: 'The kept states of a page', answers: PageVersionListSchema },
  'post /pages/{id}/versions': {
    does: 'Name the state that a page is in (If-Match)',
    body: NameVersionSchema,
    answers: PageVersionSchema,
  },
  'get /pages/{id}/versions/{versionId}': {
    does: 'A kept state of a page with its pieces',
    answers: KeptStateSchema,
  },
  'post /pages/{id}/sittings': {
    does: 'Say where one is on a page, and hear who else is there',
    body: SittingSchema,
    answers: AtPageSchema,
  },
  'get /parts': { does: 'What is kept to stand on many pages', answers: PartListSchema },
  'post /parts': { does: 'Keep a part of a page', body: NewPartSchema, answers: MadeSchema },
  'get /parts/{id}': { does: 'A kept part, and the pages that it stands on', answers: PartSchema },
  'put /parts/{id}': {
    does: 'Change a kept part on every page (If-Match)',
    body: ChangePartSchema,
    answers: PartChangedSchema,
  },
  'get /pages/{id}/sisters': { does: 'The same page in other languages', answers: SistersSchema },
  'post /pages/{id}/translations': {
    does: 'Begin a translation of a page',
    body: NewTranslationSchema,
    answers: MadeSchema,
  },
  'put /pages/{id}/translated': {
    does: 'Say which state of its original a translation says (If-Match)',
    body: TranslatedSchema,
    answers: TranslatedVersionSchema,
  },
  'get /pages/{id}/findings': { does: 'The findings of a page' },
  'get /pages/{id}/preview': { does: 'Where its proof can be seen', answers: PreviewSchema },
  'get /pages/{id}/fragment': {
    query: FragmentQuerySchema,
    does: 'The page as HTML',
    answers: FragmentSchema,
  },
  'get /pages/{id}/one-file': { does: 'The page as one file with its pictures in it, to look at' },
  'post /pages/{id}/take-away': { does: 'Order the page as a ZIP', answers: JobSchema },
  'get /jobs/{id}': { does: 'How far work is', answers: JobSchema },
  'get /jobs/{id}/events': { does: 'Progress as server-sent events' },
  'post /jobs/{id}/go-on': { does: 'Go on with work that was stopped or failed', answers: JobSchema },
  'post /jobs/{id}/stop': { does: 'Stop work', answers: JobSchema },
  'get /jobs/{id}/file': { does: 'The file that work made' },
} as const satisfies Readonly<Record<`${Method} /${string}`, Operation>>;

type Operations = typeof OPERATIONS;
export type OperationKey = keyof Operations;

/** The names in the path of an operation, each with its value. */
export type PathNames<Key extends string> = Key extends `${string}{${infer Name}}${infer Rest}`
  ? { readonly [one in Name]: string } & PathNames<Rest>
  : unknown;

type Part<Key extends OperationKey, Name extends 'query' | 'body' | 'answers'> = Operations[Key] extends {
  readonly [one in Name]: infer Schema extends v.GenericSchema;
}
  ? Schema
  : never;

export type QueryOf<Key extends OperationKey> = Part<Key, 'query'>;
export type BodyOf<Key extends OperationKey> = Part<Key, 'body'>;
export type AnswerOf<Key extends OperationKey> = Part<Key, 'answers'>;

/** What a schema lets in, as code that only reads hands it on. */
export type Readable<T> = T extends readonly (infer One)[]
  ? readonly Readable<One>[]
  : T extends object
    ? { readonly [name in keyof T]: Readable<T[name]> }
    : T;
