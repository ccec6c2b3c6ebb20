import { useQuery, useQueryClient } from '@tanstack/react-query';
import { format } from 'date-fns';
import { useLayoutEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { NewClipperSchema } from '#api/gather.ts';
import { requestJson, requestVoid, sayFailure } from '../api/client.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { Button, buttonLook } from '../ui/button.tsx';
import { Card } from '../ui/card.tsx';
import { cx } from '../ui/cx.ts';
import { toast } from '../ui/toast.ts';
import { clippersQuery, clipsQuery } from './gather-queries.ts';
import { hostOf } from './reading-group.tsx';

/** The clipper: made here, dragged to the browser's bar, called back here. And the pages it has handed in. */
export function ClipperCard() {
  const clippers = useQuery(clippersQuery);
  const clips = useQuery(clipsQuery);
  const client = useQueryClient();
  const [code, setCode] = useState<string | null>(null);
  const refresh = () => client.invalidateQueries({ queryKey: ['clippers'] });
  const make = async () => {
    try {
      const made = await requestJson('post /clippers', NewClipperSchema);
      setCode(made.code);
      await refresh();
    } catch (error) {
      toast.error(sayFailure(error));
    }
  };
  const revoke = async (id: string) => {
    await requestVoid('delete /clippers/{id}', { path: { id } }).catch((error: unknown) =>
      toast.error(sayFailure(error)),
    );
    setCode(null);
    await refresh();
  };
  const [latest] = clippers.data ?? [];
  return (
    <Card className="grid gap-2 px-4 pt-3.25 pb-3.5" aria-labelledby="clipper">
      <Unanswered of={[clippers, clips]} className="p-0" />
      <h2 className="text-3xl" id="clipper">
        From any page
      </h2>
      {clips.data && clips.data.length > 0 ? (
        <ul className="mt-2">
          {clips.data.map((clip) => (
            <li key={clip.id}>
              <Link to={`/gather?clip=${clip.id}`}>{hostOf(clip.address)}</Link>{' '}
              <span className="text-soft">handed in {format(new Date(clip.at), 'd MMM, HH:mm')}</span>
            </li>
          ))}
        </ul>
      ) : null}
      {code ? (
        <>
          <p>Drag this to your browser’s bar. Pressed on any page, it hands that page in here.</p>
          <ClipperLink code={code} />
        </>
      ) : (
        <p className="text-soft">
          {latest
            ? `Your clipper works until ${format(new Date(latest.expiresAt), 'd MMMM')}.`
            : 'A clipper in your browser’s bar hands in the page you are on. It can do nothing else.'}
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        {code || !clippers.data ? null : (
          <Button kind="link" onClick={() => void make()}>
            {latest ? 'Make another' : 'Make a clipper'}
          </Button>
        )}
        {latest ? (
          <Button kind="link" onClick={() => void revoke(latest.id)}>
            Revoke it
          </Button>
        ) : null}
      </div>
    </Card>
  );
}

/** React does not write addresses of programs; this one is ours, and is meant to be dragged, not pressed here. */
function ClipperLink({ code }: { readonly code: string }) {
  const link = useRef<HTMLAnchorElement>(null);
  useLayoutEffect(() => link.current?.setAttribute('href', code), [code]);
  return (
    <a
      ref={link}
      href="/gather"
      className={cx(buttonLook(), 'cursor-grab justify-self-start')}
      onClick={(event) => {
        event.preventDefault();
        toast('Drag it to the bar of your browser; it works on other pages.');
      }}
    >
      Hand to Placard
    </a>
  );
}
