import { readMarkup } from '../../embed/markup.ts';
import { isOversized, isStretched } from '../../media/fit.ts';
import { pictureUse } from '../../page/embed-here.ts';
import { shownWidth } from '../../page/layout.ts';
import type { Found } from '../finding.ts';
import { atPlacement, callPiece, type Placed, type ProofInput, placedOf } from '../input.ts';

/**
 * Reads the HTML that would go out as a browser does, and looks at each picture in it: width and height written
 * (so that nothing jumps while loading), in the cut's own shape, and with a file that is not far too large. Also links without words (WCAG 2.2, 2.4.4).
 */
export function checkMarkup(input: ProofInput): readonly Found[] {
  const { pictures, emptyLinks } = markupOf(input.html);
  const found = placedOf(input).flatMap((placed) => {
    const image = pictures.get(placed.placement.id);
    if (!image || pictureUse(input.rules, placed.placement, placed.piece) !== 'sizes') return [];
    return [...shapeFindings(placed, image), ...oversizedFindings(input, placed, image)];
  });
  return [...found, ...emptyLinks.map((blockId) => emptyLink(input, blockId))];
}

type Attributes = ReadonlyMap<string, string>;

function shapeFindings({ placement, piece, plan }: Placed, image: Attributes): readonly Found[] {
  const [width, height] = [Number(image.get('width')), Number(image.get('height'))];
  const name = callPiece(piece);
  const place = atPlacement(placement);
  if (!(width > 0 && height > 0)) {
    return [
      {
        code: 'dimensions-missing',
        values: { name },
        place,
        remedies: [],
      },
    ];
  }
  return isStretched(plan.cutSize, { width, height }) ? [stretchedFinding(name, place, placement.id)] : [];
}

/** A picture whose smallest file on offer is far larger than it is shown anywhere it is proofed. */
function oversizedFindings(
  input: ProofInput,
  { placement, room, piece }: Placed,
  image: Attributes,
): readonly Found[] {
  const smallest = smallestWidth(image);
  const over = input.rules.proofWidths
    .map((viewport) => ({ viewport, width: shownWidth(input.rules, placement, room, viewport) }))
    .filter(({ width }) => isOversized(smallest, width));
  if (over.length === 0) return [];
  const narrowest = Math.min(...over.map(({ width }) => width));
  return [
    {
      code: 'oversized',
      values: { name: callPiece(piece), smallest, shown: narrowest },
      place: atPlacement(placement),
      viewports: over.map(({ viewport }) => viewport),
      remedies: [],
    },
  ];
}

/** The narrowest candidate of `srcset`, or the one file there is, in px. */
function smallestWidth(image: Attributes): number {
  const candidates = [...(image.get('srcset') ?? '').matchAll(/\s(\d+)w(?:,|$)/g)].map(([, width]) =>
    Number(width),
  );
  return candidates.length > 0 ? Math.min(...candidates) : Number(image.get('width'));
}

function stretchedFinding(name: string, place: Found['place'], placementId: string): Found {
  return {
    code: 'stretched',
    values: { name },
    place,
    remedies: [{ kind: 'placement', does: 'own-shape', placementId, change: { ratio: null } }],
  };
}

function emptyLink(input: ProofInput, blockId: string | null): Found {
  return {
    code: 'link-empty',
    values: { page: input.page.title },
    place: blockId === null ? { kind: 'page' } : { kind: 'block', blockId },
    remedies: [],
  };
}

interface Markup {
  /** The attributes of the `img` of each block that shows a picture, by the block's ID. */
  readonly pictures: ReadonlyMap<string, Attributes>;
  /** The block of each link without words, or null for one outside all blocks. */
  readonly emptyLinks: readonly (string | null)[];
}

/** So many parts are kept as they were read: those of a few long pages. */
const MOST_KEPT = 3000;
const read = new Map<string, Markup>();

/** Reads a page block by block, as their IDs part it: of a page that was read before, only what was changed is read again. */
function markupOf(html: string): Markup {
  const parts = html.split(/(?=<[a-z][a-z0-9]* data-block=")/).map((part) => {
    const known = read.get(part);
    if (known) return known;
    if (read.size >= MOST_KEPT) read.clear();
    const made = readPart(part);
    read.set(part, made);
    return made;
  });
  return {
    pictures: new Map(parts.flatMap(({ pictures }) => [...pictures])),
    emptyLinks: parts.flatMap(({ emptyLinks }) => emptyLinks),
  };
}

/** Reads pictures and links from HTML that we wrote: every start and end tag is written there, so no tree has to be built. */
function readPart(html: string): Markup {
  const blockId = /^<[a-z][a-z0-9]* data-block="([^"]*)"/.exec(html)?.[1] ?? null;
  const pictures = new Map<string, Attributes>();
  const emptyLinks: (string | null)[] = [];
  let isSaid = true;
  for (const piece of readMarkup(html, 'text')) {
    if (piece.kind === 'text') isSaid ||= piece.text.trim() !== '';
    else if (piece.name === 'a') {
      if (piece.kind === 'end' && !isSaid) emptyLinks.push(blockId);
      isSaid = piece.kind === 'end';
    } else if (piece.name === 'img' && piece.kind === 'start') {
      // A picture's own words are looked at with the picture.
      isSaid = true;
      if (blockId !== null)
        pictures.set(blockId, new Map(piece.attributes.map(({ name, value }) => [name, value])));
    }
  }
  return { pictures, emptyLinks };
}
