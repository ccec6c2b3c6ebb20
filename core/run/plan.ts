import { heightAtWidth } from '../media/dimensions.ts';
import { CUT_FORMATS, type CutFormat } from '../media/formats.ts';
import { qualityFor } from '../media/quality.ts';
import { type Cuttable, type Prep, sizeAfter } from '../media/recipe.ts';
import { recipeKey } from '../media/recipe-key.ts';
import { guessBytes } from '../media/weight.ts';
import { cutFileName, nextFree } from '../naming/clash.ts';
import { folderPath } from '../naming/folders.ts';
import { wordsApart } from '../page/picture.ts';
import { isPicture } from '../page/piece.ts';
import type { HouseRules } from '../page/target.ts';
import { judgeUnplaced } from '../page/words.ts';
import { termsOf } from '../rights/house-licence.ts';
import { sayReason } from '../rights/say-judgement.ts';
import { type RunFacts, type StemWish, stemFor } from './names.ts';
import type { RunOrder } from './order.ts';
import type { RunPiece } from './piece.ts';
import { type WishedCut, wishedCut } from './size-wish.ts';
import type { RunWarning } from './warning.ts';

/** One file that a run makes of a piece. `bytes` is a guess until it is made; `quality` is the encoder's own. */
export interface PlannedFile {
  readonly name: string;
  /** The key of its recipe. */
  readonly recipe: string;
  readonly width: number;
  readonly height: number;
  readonly format: CutFormat;
  readonly quality: number;
  readonly bytes: number;
}

/** What a run changes of a piece. */
export interface RunState {
  readonly stem: string;
  readonly folder: string;
  readonly title: string;
  readonly prep: Prep;
}

export interface RunRow {
  readonly assetId: string;
  readonly before: RunState;
  readonly after: RunState;
  readonly files: readonly PlannedFile[];
  readonly warnings: readonly RunWarning[];
  /** Why it takes no part, or null: a person left it out, it is a comp, or nothing would change. */
  readonly leftOut: 'person' | 'comp' | 'nothing' | null;
}

/**
 * Settles what a run makes of each of its pieces, in their order, before anything is done. Never enlarges; every name is
 * web-safe and is neither taken nor given twice; a comp is not sized; a licence that forbids changes is not cropped or
 * prepared. The same order over the same pieces gives the same rows, on the screen and when it is run.
 * `isTaken` says whether another piece has a stem, or had it on a page that went out; `now` is when it is taken away.
 */
export function planRun(
  order: RunOrder,
  pieces: readonly RunPiece[],
  rules: HouseRules,
  isTaken: (stem: string, assetId: string) => boolean,
  now: Date | null = null,
): readonly RunRow[] {
  const given = new Set<string>();
  const freed = new Set<string>();
  const fileNames = new Set<string>();
  let number = 0;
  return pieces.map((piece) => {
    const leftOut = whyLeftOut(order, piece);
    const before = stateOf(piece);
    if (leftOut) return { assetId: piece.id, before, after: before, files: [], warnings: [], leftOut };
    number += 1;
    const wish = stemFor(order, piece, factsOf(order, piece, rules, number));
    const holds = (stem: string) =>
      stem !== piece.stem && (given.has(stem) || (isTaken(stem, piece.id) && !freed.has(stem)));
    const stem = nextFree(wish.stem, holds);
    given.add(stem);
    // A name that an earlier row of the run gives up is free for a later one, unless readers still come by it.
    if (stem !== piece.stem && !piece.isOut) freed.add(piece.stem);
    return planned(order, piece, rules, { wish, stem, now }, fileNames);
  });
}

function stateOf({ stem, folder, label, prep }: RunPiece): RunState {
  return { stem, folder, title: label.title, prep };
}

function whyLeftOut(order: RunOrder, piece: RunPiece): RunRow['leftOut'] {
  if (order.rows[piece.id]?.leftOut) return 'person';
  if (piece.label.licence === 'comp' && (order.sizes.length > 0 || order.into === 'zip')) return 'comp';
  return null;
}

function factsOf(order: RunOrder, piece: RunPiece, rules: HouseRules, number: number): RunFacts {
  const digits = Math.max(2, String(order.pieces.length).length);
  return { language: rules.language, number: String(number).padStart(digits, '0'), piece };
}

function planned(
  order: RunOrder,
  piece: RunPiece,
  rules: HouseRules,
  settled: { readonly wish: StemWish; readonly stem: string; readonly now: Date | null },
  fileNames: Set<string>,
): RunRow {
  const { wish, stem, now } = settled;
  const before = stateOf(piece);
  const { allowsDerivatives: change, publish } = termsOf(piece.label);
  const mayChange = isPicture(piece) && (change || !publish);
  // How much a picture may be squeezed is its own; a recipe of another says nothing of it.
  const prep = order.recipe && mayChange ? { ...order.recipe.prep, quality: piece.prep.quality } : piece.prep;
  const after: RunState = {
    stem,
    folder: order.folder === null ? piece.folder : folderPath(order.folder),
    title: wish.title,
    prep,
  };
  const cuts = isPicture(piece) ? cutsFor(order, { ...piece, prep }, rules, mayChange) : [];
  const files = filesOf(order, piece, rules, stem, cuts, fileNames);
  const warnings: RunWarning[] = [
    ...wish.warnings,
    ...(stem === wish.stem || stem === piece.stem
      ? []
      : [{ code: 'name-taken', wished: wish.stem, given: stem } as const]),
    ...(piece.isOut && stem !== piece.stem && order.into === 'shelf'
      ? [{ code: 'was-out', stem: piece.stem } as const]
      : []),
    ...lackings(cuts),
    ...(cuts.some(({ isCropped }) => isCropped === 'forbidden') ||
    (order.recipe && isPicture(piece) && !mayChange)
      ? [{ code: 'no-changes', licence: termsOf(piece.label).short } as const]
      : []),
    ...(!isPicture(piece) && (order.recipe || order.sizes.length > 0)
      ? [{ code: 'no-picture', kind: piece.kind } as const]
      : []),
    ...formatWarnings(order, piece, files),
    ...(order.into === 'zip' ? notCleared(piece, rules, now) : []),
  ];
  // In a ZIP there are files alone: a name or a folder that changes is that of a file.
  const isSame =
    files.length === 0 && (order.into === 'zip' || JSON.stringify(before) === JSON.stringify(after));
  return { assetId: piece.id, before, after, files, warnings, leftOut: isSame ? 'nothing' : null };
}

/** What leaves the house is judged as on a page: by licence, terms and day. What is done to it is warned of by itself. */
function notCleared(piece: RunPiece, rules: HouseRules, now: Date | null): readonly RunWarning[] {
  const [first] = judgeUnplaced(rules, piece, now).reasons;
  return first ? [{ code: 'not-cleared', why: sayReason(first) }] : [];
}

interface RunCut extends WishedCut {
  readonly isCropped: 'yes' | 'no' | 'forbidden';
}

function cutsFor(order: RunOrder, piece: RunPiece, rules: HouseRules, mayChange: boolean): readonly RunCut[] {
  const cuttable: Cuttable = {
    size: piece.size,
    trim: piece.trim,
    prep: piece.prep,
    focal: piece.label.focal,
  };
  const whole = wishedCut({ by: 'share', percent: 100 }, cuttable, [], true)?.size ?? piece.size;
  const isUpright = whole.height > whole.width;
  const wishes = isUpright && order.portrait ? order.portrait : order.sizes;
  const cuts = wishes.flatMap((wish) => {
    const wished = wishedCut(wish, cuttable, rules.cutPresets, mayChange);
    if (!wished) return [];
    // A file that is taken away has no page beside it that could hold its words.
    const isDrawn = order.into === 'zip' || rules.wordsOver === 'drawn';
    const cut = { ...wished, recipe: wordsApart(wished.recipe, isDrawn).recipe };
    const asked = mayChange ? cut : wishedCut(wish, cuttable, rules.cutPresets, true);
    const isCropped = cut.variant ? 'yes' : asked?.variant ? 'forbidden' : 'no';
    return [{ ...cut, isCropped } as const];
  });
  const all = order.sharp ? cuts.flatMap((cut) => [cut, ...doubled(cut, piece)]) : cuts;
  return all.filter((cut, at) => all.findIndex((other) => sameCut(cut, other)) === at && cut.size.width > 0);
}

/** The same cut at twice its pixels for sharp screens, as far as the piece has them. */
function doubled(cut: RunCut, piece: RunPiece): readonly RunCut[] {
  const own = sizeAfter(piece.size, cut.recipe);
  const width = Math.min(cut.size.width * 2, own.width);
  if (width <= cut.size.width) return [];
  return [{ ...cut, size: { width, height: heightAtWidth(own, width) }, lacking: null }];
}

function sameCut(one: RunCut, other: RunCut): boolean {
  return one.size.width === other.size.width && recipeKey(one.recipe) === recipeKey(other.recipe);
}

/** The widths that a piece is too small for, from narrow to wide. */
function lackings(cuts: readonly RunCut[]): readonly RunWarning[] {
  const wanted = [...new Set(cuts.flatMap(({ lacking }) => lacking ?? []))].sort((one, other) => one - other);
  return wanted.length > 0 ? [{ code: 'too-small', wanted }] : [];
}

function filesOf(
  order: RunOrder,
  piece: RunPiece,
  rules: HouseRules,
  stem: string,
  cuts: readonly RunCut[],
  fileNames: Set<string>,
): readonly PlannedFile[] {
  const formats = formatsFor(order.formats, piece);
  return cuts.flatMap(({ recipe, size, variant }) =>
    formats.map((format): PlannedFile => {
      const { extension } = CUT_FORMATS[format];
      const isNamed = (name: string) => fileNames.has(cutFileName(name, variant, size.width, extension));
      const name = cutFileName(nextFree(stem, isNamed), variant, size.width, extension);
      fileNames.add(name);
      return {
        name,
        recipe: recipeKey(recipe),
        width: size.width,
        height: size.height,
        format,
        quality: qualityIn(order, rules, piece, format),
        bytes: guessBytes(size.width, size.height, format),
      };
    }),
  );
}

/** The run's own quality where it has one, else the piece's or the House rules'. */
function qualityIn(order: RunOrder, rules: HouseRules, piece: RunPiece, format: CutFormat): number {
  const { quality } = order;
  const ofAll = quality === null ? piece.prep.quality : { avif: quality, webp: quality, jpeg: quality };
  return qualityFor(rules, { quality: ofAll }, format);
}

/** JPEG has no transparency: a piece that has some gets PNG in its place. */
function formatsFor(formats: readonly CutFormat[], { alpha }: RunPiece): readonly CutFormat[] {
  return [...new Set(formats.map((format) => (alpha && format === 'jpeg' ? 'png' : format)))];
}

function formatWarnings(
  order: RunOrder,
  piece: RunPiece,
  files: readonly PlannedFile[],
): readonly RunWarning[] {
  if (files.length === 0) return [];
  const isStill = piece.animated && files.some(({ format }) => format !== 'webp');
  return [
    ...(piece.alpha && order.formats.includes('jpeg') ? [{ code: 'png-for-jpeg' } as const] : []),
    ...(isStill ? [{ code: 'stills' } as const] : []),
  ];
}
