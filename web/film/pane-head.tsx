import type { ReactNode } from 'react';
import type { Asset } from '#api/assets.ts';
import type { CaptionTrack } from '#api/captions.ts';
import { callLanguage } from '#core/words/language.ts';
import { LanguageMenu } from './language-menu.tsx';
import { kindOf, MODE_WORDS, type Mode } from './modes.ts';

type FilmAsset = Extract<Asset, { readonly kind: 'film' }>;

interface PaneHeadProps {
  readonly mode: Mode;
  readonly asset: FilmAsset;
  readonly language: string;
  readonly count: number;
  readonly asking: number;
  readonly tracks: readonly CaptionTrack[];
  readonly onLanguage: (language: string) => void;
  readonly children: ReactNode;
}

/** What is listed, in which language, and what can be done with all of it. */
export function PaneHead({ mode, language, count, asking, tracks, onLanguage, children }: PaneHeadProps) {
  if (mode === 'trim')
    return (
      <div className="border-b-2 border-ink px-4 py-2.5">
        <h2 className="text-base font-strong">What is made of it</h2>
      </div>
    );
  const kind = kindOf(mode);
  return (
    <div className="flex flex-wrap items-baseline gap-x-3 gap-y-1 border-b-2 border-ink px-4 py-2.5">
      <h2 className="text-base font-strong">
        {MODE_WORDS[mode]}, {callLanguage(language)}
      </h2>
      {mode === 'transcript' ? null : (
        <p className="text-soft">{sayLines(count, mode === 'captions' ? asking : 0)}</p>
      )}
      <LanguageMenu kind={kind} language={language} tracks={tracks} count={count} onLanguage={onLanguage} />
      {children ? <div className="flex w-full flex-wrap gap-x-3">{children}</div> : null}
    </div>
  );
}

function sayLines(count: number, asking: number): string {
  const lines = count === 1 ? 'one line' : `${count} lines`;
  if (asking === 0) return lines;
  return `${lines}, ${asking === 1 ? 'one asks' : `${asking} ask`} for a look`;
}
