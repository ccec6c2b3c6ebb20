import { useEffect, useMemo, useRef, useState } from 'react';
import { sayFilmLength } from '#core/film/facts.ts';
import { sayBytes } from '#core/media/weight.ts';
import { goodStem } from '#core/naming/names.ts';
import type { FoundFile } from '../arrivals/dropped.ts';
import { askLimit } from '../arrivals/upload-limit.ts';
import { Button } from '../ui/button.tsx';
import { OneOf } from '../ui/chips.tsx';
import { Deeds } from '../ui/deeds.tsx';
import { Fault } from '../ui/fault.tsx';
import { Field } from '../ui/field.tsx';
import { Input } from '../ui/input.tsx';
import { Panel } from '../ui/panel.tsx';
import { useStore } from '../ui/store.ts';
import { forgetTake, keptTakes, type Source, type Take } from './kept-takes.ts';
import { Level } from './level.tsx';
import { Recorder } from './recorder.ts';

interface RecordPanelProps {
  readonly onFiles: (files: readonly FoundFile[]) => void;
  readonly onClose: () => void;
}

const CHOICES = [
  ['camera', 'camera and sound'],
  ['sound', 'sound alone'],
  ['screen', 'the screen'],
] as const;

/** A film or a recording made here, from the first sound to the shelf. */
export function RecordPanel({ onFiles, onClose }: RecordPanelProps) {
  const [recorder] = useState(() => new Recorder());
  const [source, setSource] = useState<Source>('camera');
  const [left, setLeft] = useState<readonly Take[]>([]);
  const now = useStore(recorder.store);
  useEffect(() => {
    void keptTakes().then(setLeft);
    return () => recorder.stop();
  }, [recorder]);
  const isRunning = now.state === 'recording' || now.state === 'paused';
  const close = () => {
    recorder.stop();
    onClose();
  };
  return (
    <Panel
      title="Record"
      isOpen
      onClose={close}
      about="It is kept in this browser as it is made, and goes nowhere before you keep it."
    >
      {now.state === 'idle' || now.state === 'asking' || now.state === 'refused' ? (
        <>
          <OneOf
            className="mt-3"
            about="What is recorded"
            value={source}
            choices={CHOICES}
            onChoose={setSource}
          />
          <Fault says={now.state === 'refused' ? now.sentence : null} />
          {left.map((take) => (
            <p key={take.id} className="mt-3">
              A recording of {sayFilmLength({ seconds: take.millis / 1000 })} was left unfinished.{' '}
              <Button kind="link" onClick={() => recorder.take(take)}>
                Look at it
              </Button>{' '}
              <Button
                kind="link"
                onClick={() => {
                  setLeft(left.filter((one) => one !== take));
                  void forgetTake(take.id);
                }}
              >
                Throw it away
              </Button>
            </p>
          ))}
          <Deeds>
            <Button
              kind="action"
              disabled={now.state === 'asking'}
              onClick={() => void recorder.begin(source)}
            >
              {now.state === 'asking' ? 'The browser asks you...' : 'Begin'}
            </Button>
            <Button onClick={close}>Leave it</Button>
          </Deeds>
        </>
      ) : null}
      {isRunning ? (
        <>
          <Live stream={now.stream} />
          <div className="mt-2 grid gap-1.5">
            <Level stream={now.stream} />
            <Running millis={now.millis} bytes={now.bytes} isPaused={now.state === 'paused'} />
          </div>
          <Deeds>
            <Button kind="action" onClick={() => recorder.stop()}>
              Stop
            </Button>
            {now.state === 'paused' ? (
              <Button onClick={() => recorder.goOn()}>Go on</Button>
            ) : (
              <Button onClick={() => recorder.pause()}>Pause</Button>
            )}
          </Deeds>
        </>
      ) : null}
      {now.state === 'taken' ? (
        <Taken
          take={now.take}
          onKeep={(file) => {
            onFiles([{ file, folder: '' }]);
            void forgetTake(now.take.id);
            onClose();
          }}
          onRetake={() => void recorder.throwAway(now.take.id)}
        />
      ) : null}
    </Panel>
  );
}

/** What the camera or the screen sees now; nobody hears themselves. */
function Live({ stream }: { readonly stream: MediaStream }) {
  const video = useRef<HTMLVideoElement>(null);
  useEffect(() => {
    if (video.current) video.current.srcObject = stream;
  }, [stream]);
  if (stream.getVideoTracks().length === 0) return null;
  return (
    <video
      ref={video}
      className="mt-3 aspect-video w-full bg-black"
      muted
      autoPlay
      playsInline
      aria-label="What is recorded now"
    />
  );
}

interface RunningProps {
  readonly millis: number;
  readonly bytes: number;
  readonly isPaused: boolean;
}

/** Before so much is recorded nobody knows how heavy a second of it is, in milliseconds. */
const KNOWN_AFTER = 6000;

function Running({ millis, bytes, isPaused }: RunningProps) {
  const [limit, setLimit] = useState<number | null>(null);
  useEffect(() => {
    askLimit().then(setLimit, () => undefined);
  }, []);
  const leftMillis =
    limit !== null && millis > KNOWN_AFTER && bytes > 0 ? (limit - bytes) / (bytes / millis) : null;
  return (
    <p role="status" className="flex justify-between gap-3">
      <span>
        {isPaused ? 'Paused at' : 'Records'}{' '}
        <span className="font-mono">{sayFilmLength({ seconds: millis / 1000 })}</span>
        {bytes > 0 ? `, ${sayBytes(bytes)}` : ''}
      </span>
      {leftMillis === null ? null : (
        <span className="text-soft">about {Math.max(1, Math.round(leftMillis / 60_000))} min left</span>
      )}
    </p>
  );
}

interface TakenProps {
  readonly take: Take;
  readonly onKeep: (file: File) => void;
  readonly onRetake: () => void;
}

function Taken({ take, onKeep, onRetake }: TakenProps) {
  const [title, setTitle] = useState('');
  const blob = useMemo(() => new Blob([...take.parts], { type: take.type.replace(/;.*$/, '') }), [take]);
  const address = useMemo(() => URL.createObjectURL(blob), [blob]);
  useEffect(() => () => URL.revokeObjectURL(address), [address]);
  const extension = take.type.includes('mp4') ? (take.source === 'sound' ? 'm4a' : 'mp4') : 'webm';
  const day = new Date(take.begun).toISOString().slice(0, 10);
  const name = `${title.trim() === '' ? `recording-${day}` : goodStem(title, `recording-${day}`)}.${extension}`;
  return (
    <>
      {take.source === 'sound' ? (
        // biome-ignore lint/a11y/useMediaCaption: it was recorded a moment ago.
        <audio className="mt-3 w-full" src={address} controls aria-label="The recording" />
      ) : (
        // biome-ignore lint/a11y/useMediaCaption: it was recorded a moment ago.
        <video
          className="mt-3 aspect-video w-full bg-black"
          src={address}
          controls
          playsInline
          aria-label="The recording"
        />
      )}
      <p className="mt-1.5 text-soft">
        {sayFilmLength({ seconds: take.millis / 1000 })}, {sayBytes(blob.size)}
      </p>
      <Field className="mt-2" name="What it shows or says" hint={name}>
        {(control) => (
          <Input
            {...control}
            value={title}
            maxLength={120}
            onChange={({ target }) => setTitle(target.value)}
          />
        )}
      </Field>
      <Deeds>
        <Button kind="action" onClick={() => onKeep(new File([blob], name, { type: blob.type }))}>
          Keep it
        </Button>
        <Button onClick={onRetake}>Record it again</Button>
      </Deeds>
    </>
  );
}
