import { useState } from 'react';
import type { Cue } from '#core/film/cue.ts';
import { readTranscript, transcriptOf, transcriptText } from '#core/film/edit-cues.ts';
import { Button } from '../ui/button.tsx';
import { useStore } from '../ui/store.ts';
import type { TrackKeeper } from './track-keeper.ts';

interface TranscriptPanelProps {
  readonly keeper: TrackKeeper;
  readonly captions: readonly Cue[];
  readonly isEditable: boolean;
}

/** All that is said, to be read: made from the captions, and written in as text. */
export function TranscriptPanel({ keeper, captions, isEditable }: TranscriptPanelProps) {
  const { cues } = useStore(keeper.store);
  const [typed, setTyped] = useState<string | null>(null);
  const keep = () => {
    if (typed !== null && typed !== transcriptText(cues))
      keeper.edit({ cues: readTranscript(typed, cues), at: null }, 'writing the transcript');
    setTyped(null);
  };
  const make = () => keeper.edit({ cues: transcriptOf(captions), at: null }, 'making a transcript');
  const words = cues.reduce((sum, { text }) => sum + text.split(/\s+/).filter(Boolean).length, 0);
  return (
    <div className="grid min-h-0 grid-rows-[auto_minmax(0,1fr)] gap-2 px-4 py-3.5">
      <p>
        {cues.length === 0
          ? 'None yet. It stands under the player, for those who would rather read.'
          : `${words} words. It stands under the player, folded.`}{' '}
        {isEditable && captions.length > 0 ? (
          <Button kind="link" onClick={make}>
            {cues.length === 0 ? 'Make it from the captions' : 'Make it anew from the captions'}
          </Button>
        ) : null}
      </p>
      <textarea
        className="min-h-40 w-full resize-none border border-control bg-panel p-2.5 leading-5.5"
        aria-label="Transcript"
        placeholder="Paragraphs are parted by empty lines."
        readOnly={!isEditable}
        value={typed ?? transcriptText(cues)}
        onChange={({ target }) => setTyped(target.value)}
        onBlur={keep}
      />
    </div>
  );
}
