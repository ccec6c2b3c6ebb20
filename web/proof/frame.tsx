import { type RefObject, useEffect, useRef, useState } from 'react';
import { sayBytes } from '#core/media/weight.ts';
import type { PageDoc } from '#core/page/model.ts';
import { placementsOf, walkPage } from '#core/page/walk.ts';
import type { Finding } from '#core/proof/finding.ts';
import { Dimension } from '../measure/dimension.tsx';
import { type Box, type Measure, useMeasure } from '../measure/told.ts';
import { pieces } from '../pieces/pieces.ts';
import type { Screen } from './look.ts';

export interface NumberedFinding {
  readonly number: number;
  readonly finding: Finding;
}

interface ProofFrameProps {
  readonly address: string;
  /** Width in px of the window that the page is laid out for. */
  readonly viewport: number;
  /** Width in px at which it is shown here. */
  readonly shown: number;
  readonly page: PageDoc;
  /** What is in it, as it is called. */
  readonly what?: string;
  readonly findings: readonly NumberedFinding[];
  readonly chosen: number | null;
  /** A block that is looked at. */
  readonly lit?: string | null;
  /** The reader's screen, where it is another than this. */
  readonly screen?: Screen;
  readonly onChoose: (number: number) => void;
}

/** Said only to those who do not see it: alone it needs no name. */
const THE_PAGE = 'The page';

/** Frames of other hosts need their own scripts and origin; the page leads nowhere all the same. */
const EMBED_SANDBOX = 'allow-scripts allow-same-origin allow-forms allow-popups allow-presentation';

const MARK_PX = 26;
const LEAST_HEIGHT_PX = 560;
const MOST_HEIGHT_PX = 30_000;

/** The page in a real frame of its own width, scaled down, with the numbers of its findings beside what they are about. */
export function ProofFrame({
  address,
  viewport,
  shown,
  page,
  what = THE_PAGE,
  findings,
  chosen,
  lit = null,
  screen = 'here',
  onChoose,
}: ProofFrameProps) {
  const frame = useRef<HTMLIFrameElement>(null);
  const first = useAddress(frame, address);
  const measure = useMeasure(frame);
  const scale = shown / viewport;
  const height = Math.min(MOST_HEIGHT_PX, Math.max(measure?.height ?? 0, LEAST_HEIGHT_PX / scale));
  const marks = measure ? marksOf(findings, page, measure, viewport) : [];
  const litBox = lit === null ? undefined : measure?.blocks.find(({ id }) => id === lit);
  const hasEmbeds = placementsOf(page).some(({ asset }) => pieces.state.get(asset)?.kind === 'embed');
  return (
    <figure className="relative flex-none" style={{ width: shown, margin: 0 }}>
      <figcaption className="sr-only">
        {what} at {viewport} px
      </figcaption>
      <div className="relative h-5">
        <Dimension
          tone="soft"
          ground="bg-ground"
          axis="x"
          words={`${what === THE_PAGE ? '' : `${what}, `}${sayFrame({ viewport, scale, screen, loads: measure?.loads ?? [] })}`}
          style={{ inset: '2px 0 auto 0' }}
        />
      </div>
      <div className="relative bg-white shadow-card" style={{ width: shown, height: height * scale }}>
        <iframe
          className="origin-top-left bg-white"
          ref={frame}
          src={first}
          title={`${what} at ${viewport} px`}
          sandbox={hasEmbeds ? EMBED_SANDBOX : 'allow-scripts'}
          allow="fullscreen; autoplay"
          style={{ width: viewport, height, transform: `scale(${scale})` }}
        />
        {litBox ? <Outline box={litBox} scale={scale} /> : null}
        {marks.map(({ number, severity, box, before }) => (
          <div key={number}>
            {number === chosen ? <Outline box={box} scale={scale} /> : null}
            <button
              type="button"
              className="absolute z-2 h-6 min-w-6 bg-paper-ink px-1 text-center font-sans text-sm leading-6 font-semibold text-white data-[severity=stops]:bg-measure data-[severity=stops]:text-white"
              data-severity={severity}
              aria-label={`Finding ${number} at ${viewport} px`}
              style={{
                left: Math.max(-8, box.left * scale - 8) + before * MARK_PX,
                top: Math.max(0, box.top * scale - 4),
              }}
              onClick={() => onChoose(number)}
            >
              {number}
            </button>
          </div>
        ))}
      </div>
    </figure>
  );
}

function Outline({ box, scale }: { readonly box: Box; readonly scale: number }) {
  return (
    <div
      className="pointer-events-none absolute z-1 outline-2 outline-measure"
      style={{
        left: box.left * scale,
        top: box.top * scale,
        width: box.width * scale,
        height: box.height * scale,
      }}
    />
  );
}

/** How wide it is laid out, and how large it is shown; on another screen, how much comes there. */
function sayFrame({
  viewport,
  scale,
  screen,
  loads,
}: {
  readonly viewport: number;
  readonly scale: number;
  readonly screen: Screen;
  readonly loads: Measure['loads'];
}): string {
  const percent = Math.round(scale * 100);
  if (screen !== 'here') {
    const bytes = loads.reduce((sum, load) => sum + load.bytes, 0);
    return `${viewport} px${bytes > 0 ? `, ${sayBytes(bytes)}` : ''} at ${screen}x`;
  }
  return percent < 100 ? `${viewport} px, shown at ${percent}%` : `${viewport} px`;
}

/**
 * The address that a frame begins with; each later one takes the place of the one before. One that is set on the frame would
 * be a step of the window's own history: Back would lead to a state of the page that is gone, instead of off the screen.
 */
function useAddress(frame: RefObject<HTMLIFrameElement | null>, address: string): string {
  const [first] = useState(address);
  const shown = useRef(address);
  useEffect(() => {
    if (shown.current === address) return;
    shown.current = address;
    frame.current?.contentWindow?.location.replace(address);
  }, [frame, address]);
  return first;
}

interface Mark {
  readonly number: number;
  readonly severity: Finding['severity'];
  readonly box: Box;
  /** How many marks stand before it at the same place. */
  readonly before: number;
}

const spotOf = ({ place }: Finding) => JSON.stringify(place);

/** The marks of the findings that show at this viewport; several at one place stand side by side. */
function marksOf(
  findings: readonly NumberedFinding[],
  page: PageDoc,
  measure: Measure,
  viewport: number,
): readonly Mark[] {
  const here = findings.filter(
    ({ finding }) => finding.viewports.length === 0 || finding.viewports.includes(viewport),
  );
  return here.flatMap(({ number, finding }, at) => {
    const box = boxOf(finding, page, measure);
    const before = here.slice(0, at).filter((one) => spotOf(one.finding) === spotOf(finding)).length;
    return box ? [{ number, severity: finding.severity, box, before }] : [];
  });
}

function boxOf({ place }: Finding, page: PageDoc, measure: Measure): Box | undefined {
  if (place.kind !== 'placement' && place.kind !== 'block') return undefined;
  const id = place.kind === 'placement' ? place.placementId : place.blockId;
  const boxes = new Map(measure.blocks.map((block) => [block.id, block]));
  const own = boxes.get(id);
  if (own) return own;
  // What is not written, as an empty heading, is marked where the next block begins.
  const ids = [...walkPage(page)].map(({ attrs }) => attrs.id);
  const next = ids.slice(ids.indexOf(id) + 1).find((one) => boxes.has(one));
  const top = next === undefined ? undefined : boxes.get(next)?.top;
  return top === undefined ? undefined : { top, left: 0, width: measure.width, height: UNWRITTEN_PX };
}

const UNWRITTEN_PX = 30;
