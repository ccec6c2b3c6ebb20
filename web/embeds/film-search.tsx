import { useQuery } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import type { HostEntry } from '#core/embed/host.ts';
import { sayTime } from '#core/embed/parameters.ts';
import { sayFailure } from '../api/client.ts';
import { Button } from '../ui/button.tsx';
import { filmsQuery } from './embed-queries.ts';

interface FilmSearchProps {
  readonly host: HostEntry;
  readonly onTake: (address: string) => void;
}

/** Films of a host by words; one is taken by its address, as if it had been pasted. */
export function FilmSearch({ host, onTake }: FilmSearchProps) {
  const [words, setWords] = useState('');
  const [asked, setAsked] = useState('');
  const films = useQuery({ ...filmsQuery(host.id, asked), enabled: asked !== '' });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    setAsked(words.trim());
  };
  return (
    <section className="film-search" aria-label={`Films at ${host.name}`}>
      <form onSubmit={submit}>
        <input
          className="input"
          type="search"
          aria-label={`Words to look for at ${host.name}`}
          placeholder={`Find a film at ${host.name}`}
          maxLength={200}
          value={words}
          onChange={(event) => setWords(event.target.value)}
        />
        <Button type="submit">Find</Button>
      </form>
      {films.error ? <p className="fault">{sayFailure(films.error)}</p> : null}
      {films.data?.films.length === 0 ? (
        <p className="soft">
          No film at {host.name} answers to “{asked}”.
        </p>
      ) : null}
      <ul>
        {(films.data?.films ?? []).map(({ page, title, author, seconds, poster }) => (
          <li key={page}>
            <button type="button" onClick={() => onTake(page)}>
              {poster ? <img src={poster} alt="" width={96} height={54} loading="lazy" /> : null}
              <span>
                <b>{title}</b>
                <span className="soft">
                  {[author, seconds === null ? '' : sayTime(Math.round(seconds))].filter(Boolean).join(', ')}
                </span>
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
