import { useMutation, useQuery } from '@tanstack/react-query';
import { type ChangeEvent, useRef, useState } from 'react';
import type { Asset } from '#api/assets.ts';
import { CaptionsInsideSchema } from '#api/films.ts';
import { captionsName } from '#core/film/captions-name.ts';
import { type Cue, writeVtt } from '#core/film/cue.ts';
import { judgeCue, mendCues, sayCueFault } from '#core/film/judge-cues.ts';
import { type ReadCaptions, readCaptions, sayCaptionFault } from '#core/film/read-captions.ts';
import { type CaptionRules, captionRulesOf } from '#core/film/rules.ts';
import { decodeText, decodeWestern } from '#core/formats/decode-text.ts';
import type { HouseRules } from '#core/page/target.ts';
import { callLanguage } from '#core/words/language.ts';
import { primaryOf } from '#core/words/language-tag.ts';
import { requestJson, sayFailure } from '../api/client.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { shortTime } from '../film/say-time.ts';
import { keepTrack, removeTrack, tracksQuery } from '../film/tracks.ts';
import { Button, buttonLook } from '../ui/button.tsx';
import { Deeds } from '../ui/deeds.tsx';
import { Fault } from '../ui/fault.tsx';
import { Field } from '../ui/field.tsx';
import { Input } from '../ui/input.tsx';
import { Panel } from '../ui/panel.tsx';
import { ledger } from '../undo/ledger.ts';
import { LabelRow } from './row.tsx';

type FilmAsset = Extract<Asset, { readonly kind: 'film' }>;

interface CaptionsRowProps {
  readonly asset: FilmAsset;
  readonly rules: HouseRules;
  readonly isEditable: boolean;
}

const MOST_BYTES = 3_000_000;
const SCOPE = 'captions';

/** What is said in a film, in each language: taken in as a file, looked at, mended, taken away. */
export function CaptionsRow({ asset, rules, isEditable }: CaptionsRowProps) {
  const chooser = useRef<HTMLInputElement>(null);
  const [taken, setTaken] = useState<Taken | null>(null);
  const [looked, setLooked] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const choose = async (event: ChangeEvent<HTMLInputElement>) => {
    const [file] = event.target.files ?? [];
    event.target.value = '';
    setFault(null);
    if (!file) return;
    const read = await readFile(file);
    if (typeof read === 'string') setFault(read);
    else setTaken({ ...read, language: languageOf(file.name) ?? primaryOf(rules.language) });
  };
  const takeInside = async (at: number, said: string) => {
    setFault(null);
    const path = { id: asset.id, at: String(at) };
    try {
      const { text } = await requestJson('get /assets/{id}/film/inside/{at}', CaptionsInsideSchema, { path });
      const read = readCaptions(text);
      if (read.cues.length === 0) setFault('The captions inside it say nothing. Nothing was taken of them.');
      else setTaken({ ...read, language: shortTag(said) ?? primaryOf(rules.language) });
    } catch (error) {
      setFault(sayFailure(error));
    }
  };
  const isMissing = asset.film.picture !== null && asset.film.sound !== null && asset.captions.length === 0;
  return (
    <LabelRow name="Captions">
      {asset.captions.length === 0 ? (
        <p className={isMissing ? 'text-due' : 'text-soft'}>
          {isMissing
            ? 'None yet. Those who cannot hear it, or have the sound off, miss what is said.'
            : 'None.'}
        </p>
      ) : (
        <ul>
          {asset.captions.map((language) => (
            <li key={language} className="flex items-baseline justify-between gap-2">
              {callLanguage(language)}
              <Button
                kind="link"
                aria-label={`Look at the captions in ${callLanguage(language)}`}
                onClick={() => setLooked(language)}
              >
                Look at them
              </Button>
            </li>
          ))}
        </ul>
      )}
      <Fault says={fault} />
      {isEditable ? (
        <div>
          <input
            ref={chooser}
            type="file"
            hidden
            accept=".vtt,.srt,text/vtt"
            aria-label="Captions as WebVTT or SRT"
            onChange={(event) => void choose(event)}
          />
          <Button kind="link" onClick={() => chooser.current?.click()}>
            Take in captions...
          </Button>
          {asset.film.inside.map(({ at, language }) => (
            <Button key={at} kind="link" onClick={() => void takeInside(at, language)}>
              Take those inside it{language === '' ? '' : `, ${callLanguage(primaryOf(language))}`}...
            </Button>
          ))}
        </div>
      ) : null}
      {taken ? <TakenPanel asset={asset} taken={taken} onClose={() => setTaken(null)} /> : null}
      {looked !== null ? (
        <TrackPanel
          asset={asset}
          rules={captionRulesOf(rules.films)}
          language={looked}
          isEditable={isEditable}
          onClose={() => setLooked(null)}
        />
      ) : null}
    </LabelRow>
  );
}

/** Files say languages in three letters (ISO 639-2); pages say them in two where there are two (BCP 47). */
const shortTag = (said: string): string | null => {
  try {
    return said === '' ? null : new Intl.Locale(said).language;
  } catch {
    return null;
  }
};

interface Taken extends ReadCaptions {
  readonly language: string;
}

/** Any encoding that captions come in: what says itself, else UTF-8, else what old programs wrote. */
async function readFile(file: File): Promise<ReadCaptions | string> {
  if (file.size > MOST_BYTES)
    return `${file.name} is larger than captions ever are. Nothing was taken of it.`;
  const bytes = new Uint8Array(await file.arrayBuffer());
  const isWide = (bytes[0] === 0xff && bytes[1] === 0xfe) || (bytes[0] === 0xfe && bytes[1] === 0xff);
  const wide = bytes[0] === 0xff ? 'utf-16le' : 'utf-16be';
  const text = decodeText(bytes, isWide ? wide : 'utf-8') ?? decodeWestern(bytes);
  const read = readCaptions(text);
  if (read.cues.length > 0) return read;
  return `${file.name} has no captions in it that can be read: no line says from when to when something is shown, as 00:01.000 --> 00:03.000. Nothing was taken of it.`;
}

/** As the file is called: "eel-pass.cy.vtt". */
const languageOf = (name: string): string | null =>
  /[._-]([a-z]{2}(?:-[a-z]{2})?)\.(?:vtt|srt)$/i.exec(name)?.[1]?.toLowerCase() ?? null;

interface TakenPanelProps {
  readonly asset: FilmAsset;
  readonly taken: Taken;
  readonly onClose: () => void;
}

/** What was read of a file, with its faults, before it is kept. */
function TakenPanel({ asset, taken, onClose }: TakenPanelProps) {
  const [language, setLanguage] = useState(taken.language);
  const tracks = useQuery(tracksQuery(asset.id));
  const before = tracks.data?.find(
    (one) => one.kind === 'captions' && one.language === language.toLowerCase(),
  );
  const keeping = useMutation({
    mutationFn: () =>
      keepTrack(asset.id, {
        kind: 'captions',
        language,
        version: before?.version ?? 0,
        cues: [...taken.cues],
      }),
    onSuccess: onClose,
  });
  return (
    <Panel
      title="Take in captions"
      about={`${sayCount(taken.cues.length)}, the last until ${shortTime(taken.cues.at(-1)?.to ?? 0)}.`}
      isOpen
      onClose={onClose}
    >
      <Field
        className="mt-2 max-w-60"
        name="Language"
        hint={before ? 'There are captions in it already: these take their place.' : callLanguage(language)}
      >
        {(control) => (
          <Input
            {...control}
            value={language}
            maxLength={35}
            onChange={({ target: { value } }) => setLanguage(value.trim().toLowerCase())}
          />
        )}
      </Field>
      {taken.faults.length > 0 ? (
        <ul className="mt-2 list-disc pl-4.5 text-due" aria-label="What was wrong with the file">
          {taken.faults.slice(0, MOST_TOLD).map((fault) => (
            <li key={`${fault.code} ${fault.line}`}>{sayCaptionFault(fault)}</li>
          ))}
          {taken.faults.length > MOST_TOLD ? <li>And {taken.faults.length - MOST_TOLD} more.</li> : null}
        </ul>
      ) : null}
      <Fault says={keeping.error ? sayFailure(keeping.error) : null} />
      <Deeds>
        <Button kind="action" disabled={keeping.isPending || !tracks.data} onClick={() => keeping.mutate()}>
          Keep them
        </Button>
        <Button onClick={onClose}>Leave it</Button>
      </Deeds>
    </Panel>
  );
}

const MOST_TOLD = 12;

interface TrackPanelProps {
  readonly asset: FilmAsset;
  readonly rules: CaptionRules;
  readonly language: string;
  readonly isEditable: boolean;
  readonly onClose: () => void;
}

/** The captions in one language: how many, which ask for a look, and what can be done with all of them. */
function TrackPanel({ asset, rules, language, isEditable, onClose }: TrackPanelProps) {
  const tracks = useQuery(tracksQuery(asset.id));
  const track = tracks.data?.find((one) => one.kind === 'captions' && one.language === language);
  const changing = useMutation({
    mutationFn: async (cues: readonly Cue[]) => {
      if (!track) return;
      const kept = await keepTrack(asset.id, { ...track, cues: [...cues] });
      ledger.add({
        name: 'mending captions',
        scope: SCOPE,
        undo: async () => void (await keepTrack(asset.id, { ...track, version: kept.version })),
        redo: async () => void (await keepTrack(asset.id, { ...kept, version: kept.version + 1 })),
      });
    },
  });
  const takeAway = () => removeTrack(asset.id, { kind: 'captions', language });
  const removing = useMutation({
    mutationFn: async () => {
      if (!track) return;
      await takeAway();
      ledger.add({
        name: `removing captions in ${callLanguage(language)}`,
        scope: SCOPE,
        undo: async () => void (await keepTrack(asset.id, { ...track, version: 0 })),
        redo: takeAway,
      });
    },
    onSuccess: onClose,
  });
  const cues = track?.cues ?? [];
  const asking = cues.flatMap((cue, at) => {
    const faults = judgeCue(cues, at, rules, asset.film.seconds * 1000);
    return faults.length > 0 ? [{ cue, at, faults }] : [];
  });
  const mended = mendCues(cues, rules);
  const canMend = JSON.stringify(mended) !== JSON.stringify(cues);
  return (
    <Panel
      title={`Captions, ${callLanguage(language)}`}
      about={track ? `${sayCount(cues.length)}, ${sayAsking(asking.length)}.` : ''}
      isOpen
      onClose={onClose}
    >
      <Unanswered of={tracks} />
      <ol className="mt-2" aria-label="Captions that ask for a look">
        {asking.slice(0, MOST_ASKING).map(({ cue, at, faults }) => (
          <li
            key={at}
            className="grid grid-cols-[76px_minmax(0,1fr)] gap-x-3 border-t border-hairline py-1.75"
          >
            <span className="font-mono text-mono text-soft">
              {shortTime(cue.from)}
              <br />
              {shortTime(cue.to)}
            </span>
            <div>
              <p className="whitespace-pre-line">{cue.text}</p>
              {faults.map((fault) => (
                <p key={fault.code} className="font-semibold text-due">
                  {sayCueFault(fault)}
                </p>
              ))}
            </div>
          </li>
        ))}
      </ol>
      {asking.length > MOST_ASKING ? (
        <p className="text-soft">And {asking.length - MOST_ASKING} more.</p>
      ) : null}
      <Fault says={changing.error || removing.error ? sayFailure(changing.error ?? removing.error) : null} />
      <Deeds>
        {isEditable && canMend ? (
          <Button kind="action" disabled={changing.isPending} onClick={() => changing.mutate(mended)}>
            Mend all that is safe
          </Button>
        ) : null}
        <a
          className={buttonLook({ kind: 'link' })}
          download={captionsName(asset.stem, language)}
          href={`data:text/vtt;charset=utf-8,${encodeURIComponent(writeVtt(cues))}`}
        >
          Take them away as WebVTT
        </a>
        {isEditable ? (
          <Button kind="link" onClick={() => removing.mutate()}>
            Remove them
          </Button>
        ) : null}
        <Button onClick={onClose}>Done</Button>
      </Deeds>
    </Panel>
  );
}

const MOST_ASKING = 60;

const sayCount = (count: number) => (count === 1 ? 'One caption' : `${count} captions`);

function sayAsking(count: number): string {
  if (count === 0) return 'none asks for a look';
  return count === 1 ? 'one asks for a look' : `${count} ask for a look`;
}
