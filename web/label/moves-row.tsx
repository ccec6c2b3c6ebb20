import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { type Asset, AssetSchema } from '#api/assets.ts';
import { sayBytes } from '#core/media/weight.ts';
import type { HouseRules } from '#core/page/target.ts';
import { requestJson, sayFailure } from '../api/client.ts';
import { putPieces } from '../pieces/pieces.ts';
import { ReplacePanel } from '../replace/replace-panel.tsx';
import { Button } from '../ui/button.tsx';
import { Fault } from '../ui/fault.tsx';
import { LabelRow } from './row.tsx';

interface MovesRowProps {
  readonly asset: Asset;
  readonly rules: HouseRules;
  readonly isEditable: boolean;
}

/** An animated picture can be a film: lighter, and with a player that stops it (WCAG 2.2, 2.2.2). */
export function MovesRow({ asset, rules, isEditable }: MovesRowProps) {
  const [isReplacing, setReplacing] = useState(false);
  const making = useMutation({
    mutationFn: () => requestJson('post /assets/{id}/film-of-it', AssetSchema, { path: { id: asset.id } }),
    onSuccess: (film) => putPieces([film]),
  });
  const film = making.data;
  return (
    <LabelRow name="Moves">
      {film?.kind === 'film' ? (
        <p>
          As a film it is {sayBytes(film.film.bytes)} {saying(asset.bytes, film.film.bytes)}, and readers can
          stop it.
        </p>
      ) : (
        <p>It moves by itself. As a film it has a player that stops it, and mostly weighs less.</p>
      )}
      <Fault says={making.error ? sayFailure(making.error) : null} />
      {isEditable && !film ? (
        <Button kind="link" disabled={making.isPending} onClick={() => making.mutate()}>
          {making.isPending ? 'Making a film of it...' : 'Make a film of it'}
        </Button>
      ) : null}
      {isEditable && film ? (
        <Button kind="link" onClick={() => setReplacing(true)}>
          Put the film in its place...
        </Button>
      ) : null}
      {isReplacing && film ? (
        <ReplacePanel asset={asset} rules={rules} by={film} onClose={() => setReplacing(false)} />
      ) : null}
    </LabelRow>
  );
}

function saying(before: number, after: number): string {
  return after < before
    ? `instead of ${sayBytes(before)}`
    : `and heavier than the ${sayBytes(before)} that it is now`;
}
