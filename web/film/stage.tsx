import { useEffect, useRef } from 'react';
import type { Asset } from '#api/assets.ts';
import type { Cue } from '#core/film/cue.ts';
import { type Clock, useMoment } from './clock.ts';

interface StageProps {
  readonly asset: Extract<Asset, { readonly kind: 'film' }>;
  readonly clock: Clock;
  readonly cues: readonly Cue[];
  /** What of its pictures stays, in fractions; null for all. */
  readonly crop: {
    readonly left: number;
    readonly top: number;
    readonly width: number;
    readonly height: number;
  } | null;
  readonly turn: number;
}

/** The film as it plays, its captions over it as readers see them. */
export function Stage({ asset, clock, cues, crop, turn }: StageProps) {
  const media = useRef<HTMLVideoElement & HTMLAudioElement>(null);
  useEffect(() => (media.current ? clock.attach(media.current) : undefined), [clock]);
  const title = asset.label.title || asset.stem;
  const { picture } = asset.film;
  if (!picture)
    return (
      <div className="relative grid h-full place-items-center bg-stage p-5">
        <img src={asset.view} alt="" className="max-h-full max-w-full bg-panel" />
        {/* biome-ignore lint/a11y/useMediaCaption: what is said lies under it, as it is worked on. */}
        <audio ref={media} src={asset.plays} preload="auto" crossOrigin="anonymous" aria-label={title} />
        <Shown clock={clock} cues={cues} />
      </div>
    );
  const isTurned = turn % 180 !== 0;
  const ratio = isTurned ? picture.height / picture.width : picture.width / picture.height;
  return (
    <div className="[container-type:size] grid h-full min-h-0 place-items-center overflow-hidden bg-stage p-5">
      <div
        className="relative"
        style={{ width: `min(100cqw, ${ratio} * 100cqh)`, aspectRatio: String(ratio) }}
      >
        {/* biome-ignore lint/a11y/useMediaCaption: what is said lies over it, as it is worked on. */}
        <video
          ref={media}
          className="absolute top-1/2 left-1/2 bg-black"
          style={{
            width: isTurned ? `${100 / ratio}%` : '100%',
            aspectRatio: `${picture.width} / ${picture.height}`,
            transform: `translate(-50%, -50%) rotate(${turn}deg)`,
          }}
          src={asset.plays}
          poster={turn === 0 && crop === null ? asset.plainView : undefined}
          preload="auto"
          crossOrigin="anonymous"
          playsInline
          aria-label={title}
          onClick={() => clock.toggle()}
        />
        {crop ? (
          <div
            className="pointer-events-none absolute border border-panel shadow-[0_0_0_9999px_rgb(0_0_0/0.55)]"
            style={{
              left: `${crop.left * 100}%`,
              top: `${crop.top * 100}%`,
              width: `${crop.width * 100}%`,
              height: `${crop.height * 100}%`,
            }}
          />
        ) : null}
        <Shown clock={clock} cues={cues} />
      </div>
    </div>
  );
}

/** The caption of the moment, as a reader's player draws it. */
function Shown({ clock, cues }: { readonly clock: Clock; readonly cues: readonly Cue[] }) {
  const text = useMoment(clock, (at) => cues.find(({ from, to }) => at >= from && at < to)?.text ?? '');
  return (
    <p
      className="pointer-events-none absolute inset-x-0 bottom-[5%] grid justify-items-center px-3 text-center"
      aria-live="off"
    >
      {text.trim() === '' ? null : (
        <span className="bg-[#0b0f11d9] px-2.5 py-1 text-lg leading-6 whitespace-pre-line text-white">
          {text}
        </span>
      )}
    </p>
  );
}
