import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import * as v from 'valibot';
import type { HostEntry } from '#core/embed/host.ts';
import { sayTime } from '#core/embed/parameters.ts';
import { sayFailure } from '../api/client.ts';
import { Form, Line } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { Button } from '../ui/button.tsx';
import { Fault } from '../ui/fault.tsx';
import { filmsQuery } from './embed-queries.ts';

interface FilmSearchProps {
  readonly host: HostEntry;
  readonly onTake: (address: string) => void;
}

const WordsSchema = v.object({ words: v.pipe(v.string(), v.trim(), v.maxLength(200)) });

/** Films of a host by words; one is taken by its address, as if it had been pasted. */
export function FilmSearch({ host, onTake }: FilmSearchProps) {
  const [asked, setAsked] = useState('');
  const films = useQuery({ ...filmsQuery(host.id, asked), enabled: asked !== '' });
  const form = useSaveForm({
    schema: WordsSchema,
    defaults: { words: '' },
    save: ({ words }) => setAsked(words),
  });
  return (
    <section className="mt-4.5" aria-label={`Films at ${host.name}`}>
      <Form of={form} className="flex items-end gap-1.5">
        <Line
          of={form}
          className="min-w-0 flex-1"
          name="words"
          label={`Words to look for at ${host.name}`}
          type="search"
          placeholder={`Find a film at ${host.name}`}
          maxLength={200}
        />
        <Button type="submit">Find</Button>
      </Form>
      <Fault says={films.error ? sayFailure(films.error) : null} />
      {films.data?.films.length === 0 ? (
        <p className="text-soft">
          No film at {host.name} answers to “{asked}”.
        </p>
      ) : null}
      <ul className="mt-2.5">
        {(films.data?.films ?? []).map(({ page, title, author, seconds, poster }) => (
          <li key={page}>
            <button
              className="group flex w-full gap-2.5 border-t border-hairline py-1.75 text-left"
              type="button"
              onClick={() => onTake(page)}
            >
              {poster ? (
                <img
                  className="h-13.5 w-24 object-cover"
                  src={poster}
                  alt=""
                  width={96}
                  height={54}
                  loading="lazy"
                />
              ) : null}
              <span>
                <b className="group-hover:underline">{title}</b>
                <span className="block text-soft">
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
