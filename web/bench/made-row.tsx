import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { type Asset, type MadeCuts, MadeCutsSchema } from '#api/assets.ts';
import { sayBytes } from '#core/media/weight.ts';
import { requestJson, sayFailure } from '../api/client.ts';
import { madeCutsQuery, queryClient } from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { LabelRow } from '../label/row.tsx';
import { Button } from '../ui/button.tsx';
import { toast } from '../ui/toast.ts';

const files = (count: number) => (count === 1 ? '1 file' : `${count} files`);

/** The files that were made of a piece: for which page, how heavy, and those that nothing needs any more. */
export function MadeRow({ asset, isEditable }: { readonly asset: Asset; readonly isEditable: boolean }) {
  // What is needed follows from how the piece is prepared: another version asks anew.
  const asked = useQuery(madeCutsQuery(asset.id, asset.version));
  const made = asked.data;
  const [isOpen, setOpen] = useState(false);
  if (!made) return <Unanswered of={asked} className="px-0 py-2.5" />;
  const throwAway = async () => {
    try {
      const left = await requestJson('delete /assets/{id}/cuts', MadeCutsSchema, { path: { id: asset.id } });
      queryClient.setQueryData(madeCutsQuery(asset.id, asset.version).queryKey, left);
      toast(`${files(made.unused.count)} thrown away. One that is needed again is made again.`);
    } catch (error) {
      toast.error(sayFailure(error));
    }
  };
  return (
    <LabelRow name="Made">
      <p>{sayMade(made)}</p>
      {made.onPages.length > 0 ? (
        <Button kind="link" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
          {isOpen ? 'Show fewer' : 'Show each file'}
        </Button>
      ) : null}
      {isOpen ? (
        <ul className="my-1 text-sm leading-4.5">
          {made.onPages.map(({ width, format, bytes, recipe, pages }) => (
            <li key={`${recipe} ${width} ${format} ${bytes}`}>
              <span className="font-mono text-xs">
                {width} px {format.toUpperCase()}, {sayBytes(bytes)}
              </span>{' '}
              <span className="text-soft">{pages.join(', ')}</span>
            </li>
          ))}
        </ul>
      ) : null}
      {made.unused.count > 0 ? (
        <p>
          {files(made.unused.count)} ({sayBytes(made.unused.bytes)}), made before it was changed, of no use
          now.
        </p>
      ) : null}
      {made.unused.count > 0 && isEditable ? (
        <Button kind="link" onClick={() => void throwAway()}>
          {made.unused.count === 1 ? 'Throw it away' : 'Throw those away'}
        </Button>
      ) : null}
    </LabelRow>
  );
}

function sayMade({ onPages, byRuns }: MadeCuts): string {
  const ofRuns = byRuns.count > 0 ? `${files(byRuns.count)}, ${sayBytes(byRuns.bytes)}, made in runs.` : '';
  if (onPages.length === 0) return ofRuns || 'No file yet. They are made when a page needs them.';
  const bytes = onPages.reduce((sum, cut) => sum + cut.bytes, 0);
  const pages = [...new Set(onPages.flatMap((cut) => cut.pages))];
  const where = pages.length > 0 ? pages.join(' and ') : 'pages';
  return `${files(onPages.length)}, ${sayBytes(bytes)}, for ${where}. ${ofRuns}`.trim();
}
