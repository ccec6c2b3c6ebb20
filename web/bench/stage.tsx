import {
  type ComponentProps,
  type MouseEvent,
  type RefObject,
  useLayoutEffect,
  useRef,
  useState,
} from 'react';
import type { Asset } from '#api/assets.ts';
import type { Point } from '#core/media/crop.ts';
import {
  type Cuttable,
  focalIn,
  focalOfOriginal,
  frameIn,
  type Prep,
  recipeForRatio,
  wholeSize,
} from '#core/media/recipe.ts';
import type { CutPreset } from '#core/page/target.ts';
import { OverHere } from '../over/over-here.tsx';
import { Compare } from './compare.tsx';
import { FocalMark } from './focal-mark.tsx';
import { FrameOverlay } from './frame-overlay.tsx';
import { withCrop, withFrame, withoutFrame } from './frames.ts';
import { LevelLine } from './level-line.tsx';
import { Prepared } from './prepared.tsx';

interface StageProps {
  /** While something else is looked at in its place. */
  readonly isHidden: boolean;
  readonly asset: Asset;
  readonly piece: Cuttable;
  readonly preset: CutPreset | null;
  readonly isEditable: boolean;
  readonly isCompared: boolean;
  readonly onPrep: (prep: Prep, isDone: boolean, name: string) => void;
  /** The focal point, in fractions of the original. */
  readonly onFocal: (focal: Point, isDone: boolean) => void;
  /** Set while a line is drawn along what should be level. */
  readonly level: ComponentProps<typeof LevelLine> | null;
}

/** The piece on neutral grey, where its colour is judged, with the frame of the open cut and the focal point. */
export function Stage({ asset, piece: made, preset, isEditable, isCompared, ...rest }: StageProps) {
  const { onPrep, onFocal, level, isHidden } = rest;
  const stage = useRef<HTMLElement>(null);
  // To be cropped, the piece is shown with what its crop leaves out.
  const isCropped = preset === null && !isCompared && !level;
  const piece = isCropped ? { ...made, prep: { ...made.prep, crop: null } } : made;
  const onPoint = (seen: Point, isDone: boolean) => onFocal(focalOfOriginal(piece, seen), isDone);
  const whole = wholeSize(piece);
  const width = useRoom(stage, whole.width / whole.height);
  const height = (width * whole.height) / whole.width;
  const ratio = preset?.ratio ?? null;
  const frame = isCropped ? (made.prep.crop ?? FULL) : ratio ? frameIn(piece, ratio) : null;
  const { words } = recipeForRatio(made, ratio);
  const at = frame ?? FULL;
  const press = (event: MouseEvent<HTMLDivElement>) => {
    if (!isEditable || !(event.target instanceof Element) || event.target.closest('[data-handle]')) return;
    const box = event.currentTarget.getBoundingClientRect();
    onPoint({ x: (event.clientX - box.left) / width, y: (event.clientY - box.top) / height }, true);
  };
  return (
    <section
      className="grid min-h-0 min-w-0 flex-1 place-items-center overflow-hidden bg-stage [[hidden]]:hidden"
      ref={stage}
      aria-label="Stage"
      hidden={isHidden}
    >
      {/* biome-ignore lint/a11y/noStaticElementInteractions: the focal point itself is a button with keys of its own */}
      {/* biome-ignore lint/a11y/useKeyWithClickEvents: as above */}
      <div
        className="relative cursor-crosshair"
        data-stage="picture"
        style={{ width, height }}
        onClick={press}
      >
        <Prepared
          piece={piece}
          view={asset.plainView}
          width={width}
          crop={null}
          alt={asset.label.title || asset.stem}
        />
        {words && !isCompared && !level ? (
          <OverHere
            words={words}
            left={at.left * width}
            top={at.top * height}
            width={at.width * width}
            height={at.height * height}
          />
        ) : null}
        {frame && isEditable && !level ? (
          <FrameOverlay
            frame={frame}
            ratio={ratio}
            whole={whole}
            width={width}
            onFrame={(next, isDone) =>
              ratio
                ? onPrep(withFrame(made.prep, ratio, next), isDone, 'framing it by hand')
                : onPrep(withCrop(made.prep, next), isDone, 'cropping it')
            }
            onClear={() =>
              ratio
                ? onPrep(withoutFrame(made.prep, ratio), true, 'following the focal point')
                : onPrep(withCrop(made.prep, null), true, 'its own shape')
            }
          />
        ) : null}
        {isCompared ? <Compare piece={piece} view={asset.plainView} width={width} height={height} /> : null}
        {level ? <LevelLine {...level} /> : null}
        {isEditable && !level ? (
          <FocalMark point={focalIn(piece)} width={width} height={height} onPoint={onPoint} />
        ) : null}
      </div>
    </section>
  );
}

const FULL = { left: 0, top: 0, width: 1, height: 1 };
const MARGIN_PX = 76;

/** The width at which a picture of a shape fills the stage. */
function useRoom(stage: RefObject<HTMLElement | null>, aspect: number): number {
  const [room, setRoom] = useState({ width: 640, height: 460 });
  useLayoutEffect(() => {
    const element = stage.current;
    if (!element) return;
    const look = () =>
      setRoom({
        width: Math.max(160, element.clientWidth - MARGIN_PX),
        height: Math.max(160, element.clientHeight - MARGIN_PX),
      });
    look();
    const observer = new ResizeObserver(look);
    observer.observe(element);
    return () => observer.disconnect();
  }, [stage]);
  return Math.round(Math.min(room.width, room.height * aspect));
}
