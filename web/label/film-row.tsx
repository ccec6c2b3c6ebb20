import { Link } from 'react-router';
import type { Asset } from '#api/assets.ts';
import { FILM_FORMATS, filmKind, isPlayed, sayFilmLength } from '#core/film/facts.ts';
import { sayFilmRecipe } from '#core/film/recipe.ts';
import { sayBytes } from '#core/media/weight.ts';
import { callLanguage } from '#core/words/language.ts';
import { MakingRow } from '../film/making-row.tsx';
import { useFilmWork } from '../film/use-film-work.ts';
import { MoveFilm } from './move-film.tsx';
import { LabelRow } from './row.tsx';

interface FilmRowProps {
  readonly isEditable: boolean;
  readonly asset: Extract<Asset, { readonly kind: 'film' }>;
}

/** What the file of a film or a recording is; it plays here, and goes out as it is made for the web. */
export function FilmRow({ asset, isEditable }: FilmRowProps) {
  const work = useFilmWork(asset);
  const says = sayFilmRecipe(asset.recipe);
  const { film, file: address, view } = asset;
  const title = asset.label.title || asset.stem;
  const { picture, sound, format, bytes } = film;
  const tracks = asset.captions.map((language, at) => (
    <track
      key={language}
      kind="captions"
      src={asset.tracks[at]}
      srcLang={language}
      label={callLanguage(language)}
    />
  ));
  const facts = [
    FILM_FORMATS[format].says,
    sayFilmLength(film),
    picture ? `${picture.width} × ${picture.height}` : '',
    picture && picture.rate > 0 ? `${picture.rate} pictures a second` : '',
    sound ? sayChannels(sound.channels) : 'without sound',
    sayBytes(bytes),
  ].filter(Boolean);
  return (
    <LabelRow name={picture ? 'Film' : 'Sound'}>
      {picture ? (
        // biome-ignore lint/a11y/useMediaCaption: its captions are in the list of tracks.
        <video
          className="mb-1.5 w-full bg-ink"
          src={asset.plays}
          controls
          preload="none"
          crossOrigin="anonymous"
          poster={view}
          aria-label={title}
        >
          {tracks}
        </video>
      ) : (
        // biome-ignore lint/a11y/useMediaCaption: its captions are in the list of tracks.
        <audio
          className="mb-1.5 w-full"
          src={asset.plays}
          controls
          preload="none"
          crossOrigin="anonymous"
          aria-label={title}
        >
          {tracks}
        </audio>
      )}
      <p>
        {facts.join(', ')}.{' '}
        <a href={address} download rel="noreferrer">
          Download it
        </a>
      </p>
      {says ? <p>{says.charAt(0).toUpperCase() + says.slice(1)}.</p> : null}
      <MakingRow asset={asset} work={work} isEditable={isEditable} />
      {isPlayed(film) || asset.made.length > 0 ? null : (
        <p className="text-due">Not every browser plays a {filmKind(film)} of this sort as it came.</p>
      )}
      <p>
        <Link to={`/shelf/${asset.id}/film`}>
          {isEditable ? 'Caption, trim and level it' : 'Look at its captions'}
        </Link>
      </p>
      {isEditable ? <MoveFilm asset={asset} /> : null}
    </LabelRow>
  );
}

function sayChannels(channels: number): string {
  if (channels === 1) return 'mono';
  return channels === 2 ? 'stereo' : `${channels} channels`;
}
