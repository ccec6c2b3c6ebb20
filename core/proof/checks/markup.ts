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
  const { images, emptyLinks } = markupOf(input.html);
  const placed = placedOf(input).filter(
    ({ placement, piece }) => pictureUse(input.rules, placement, piece) === 'sizes',
  );
  const pictures = images.flatMap((image, at) => {
    const one = placed[at];
    return one ? [...shapeFindings(one, image), ...oversizedFindings(input, one, image)] : [];
  });
  return [...pictures, ...Array.from({ length: emptyLinks }, () => emptyLink(input))];
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
        sentence: `${name} goes out without width and height.`,
        why: 'The text jumps when it arrives.',
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
  { placement, piece }: Placed,
  image: Attributes,
): readonly Found[] {
  const smallest = smallestWidth(image);
  const over = input.rules.proofWidths
    .map((viewport) => ({ viewport, width: shownWidth(input.rules, placement, viewport) }))
    .filter(({ width }) => isOversized(smallest, width));
  if (over.length === 0) return [];
  const narrowest = Math.min(...over.map(({ width }) => width));
  return [
    {
      code: 'oversized',
      sentence: `${callPiece(piece)} is sent much larger than it is shown.`,
      why: `The smallest file is ${smallest} px wide for ${Math.round(narrowest)} px on screen.`,
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
    sentence: `${name} is shown in another shape than its own.`,
    why: 'Its width and height differ by over one per cent from its shape, so it looks stretched.',
    place,
    remedies: [{ kind: 'placement', words: 'Give it its own shape', placementId, change: { ratio: null } }],
  };
}

function emptyLink(input: ProofInput): Found {
  return {
    code: 'link-empty',
    sentence: 'A link has no words.',
    why: `Nobody can tell where it goes. It is on “${input.page.title || 'this page'}”.`,
    place: { kind: 'page' },
    remedies: [],
  };
}

interface Markup {
  /** The attributes of each `img`, in order. */
  readonly images: readonly ReadonlyMap<string, string>[];
  readonly emptyLinks: number;
}

/** So many figures are kept as they were read: those of a few long pages. */
const MOST_KEPT = 3000;
const read = new Map<string, Markup>();

/** Reads a page figure by figure: of a page that was read before, only what was changed is read again. */
function markupOf(html: string): Markup {
  const parts = html.split(/(?=<figure\b)/).map((part) => {
    const known = read.get(part);
    if (known) return known;
    if (read.size >= MOST_KEPT) read.clear();
    const made = readPart(part);
    read.set(part, made);
    return made;
  });
  return {
    images: parts.flatMap(({ images }) => images),
    emptyLinks: parts.reduce((sum, { emptyLinks }) => sum + emptyLinks, 0),
  };
}

/** Reads pictures and links from HTML that we wrote: every start and end tag is written there, so no tree has to be built. */
function readPart(html: string): Markup {
  const images: Map<string, string>[] = [];
  let emptyLinks = 0;
  let isSaid = true;
  for (const piece of readMarkup(html, 'text')) {
    if (piece.kind === 'text') isSaid ||= piece.text.trim() !== '';
    else if (piece.name === 'a') {
      if (piece.kind === 'end' && !isSaid) emptyLinks += 1;
      isSaid = piece.kind === 'end';
    } else if (piece.name === 'img' && piece.kind === 'start') {
      // A picture's own words are looked at with the picture.
      isSaid = true;
      images.push(new Map(piece.attributes.map(({ name, value }) => [name, value])));
    }
  }
  return { images, emptyLinks };
}
