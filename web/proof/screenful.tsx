import type { RefObject } from 'react';
import { heightOf } from './look.ts';

interface ScreenfulProps {
  readonly title: string;
  readonly about: string;
  /** Null where nothing is there yet. */
  readonly address: string | null;
  readonly viewport: number;
  readonly shown: number;
  readonly frame?: RefObject<HTMLIFrameElement | null>;
}

/** What a window of a usual height shows of a page before anybody scrolls. */
export function Screenful({ title, about, address, viewport, shown, frame }: ScreenfulProps) {
  const scale = shown / viewport;
  const height = heightOf(viewport);
  return (
    <figure className="flex-none" style={{ width: shown, margin: 0 }}>
      <figcaption className="mb-1.5">
        <h2 className="text-lg">{title}</h2>
        <p className="min-h-10 text-sm text-soft">{about}</p>
      </figcaption>
      <div
        className="relative overflow-hidden bg-white shadow-card"
        style={{ width: shown, height: height * scale }}
      >
        {address === null ? null : (
          <iframe
            className="origin-top-left bg-white"
            ref={frame}
            src={address}
            title={`${title} at ${viewport} px`}
            sandbox="allow-scripts"
            style={{ width: viewport, height, transform: `scale(${scale})` }}
          />
        )}
      </div>
    </figure>
  );
}
