import type { Asset } from '#api/assets.ts';
import { sayFilmLength } from '#core/film/facts.ts';
import { type FilmRecipe, sayFilmRecipe } from '#core/film/recipe.ts';
import { sayBytes } from '#core/media/weight.ts';
import { Button, LinkButton } from '../ui/button.tsx';
import { MODE_WORDS, MODES, type Mode } from './modes.ts';

type FilmAsset = Extract<Asset, { readonly kind: 'film' }>;

interface FilmHeaderProps {
  readonly asset: FilmAsset;
  readonly recipe: FilmRecipe;
  readonly mode: Mode;
  readonly onMode: (mode: Mode) => void;
}

/** What it is, as it came and for the web, and what is worked on. */
export function FilmHeader({ asset, recipe, mode, onMode }: FilmHeaderProps) {
  const { film, made } = asset;
  const best = made.find(({ format }) => format !== 'webm');
  const facts = [
    sayFilmLength(film),
    film.picture ? `${film.picture.width} × ${film.picture.height}` : '',
    `${sayBytes(film.bytes)} as it came`,
  ].filter(Boolean);
  const says = [
    facts.join(', '),
    best ? `${sayBytes(best.bytes)} for the web` : '',
    sayFilmRecipe(recipe),
  ].filter(Boolean);
  return (
    <header className="flex flex-wrap items-center justify-between gap-3 border-b border-line bg-panel px-4.5 py-2.5">
      <div className="min-w-0">
        <h1 className="truncate font-serif text-2xl leading-7 font-normal italic">
          {asset.label.title || asset.stem}
        </h1>
        <p className="text-sm text-soft">{says.join(' · ')}</p>
      </div>
      <div className="flex flex-wrap gap-2.5">
        {MODES.map((one) => (
          <Button
            key={one}
            aria-pressed={mode === one}
            className="aria-pressed:bg-ink aria-pressed:text-panel"
            onClick={() => onMode(one)}
          >
            {MODE_WORDS[one]}
          </Button>
        ))}
        <LinkButton kind="action" to={`/shelf?piece=${asset.id}`}>
          Done
        </LinkButton>
      </div>
    </header>
  );
}
