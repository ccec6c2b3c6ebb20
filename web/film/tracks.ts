import { queryOptions } from '@tanstack/react-query';
import { AssetSchema } from '#api/assets.ts';
import { type CaptionTrack, CaptionTrackSchema, CaptionTracksSchema } from '#api/captions.ts';
import { FilmWorkSchema } from '#api/films.ts';
import { requestJson, requestVoid } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { putPieces } from '../pieces/pieces.ts';

/** All that lies along a film: captions, chapters, transcripts. */
export const tracksQuery = (assetId: string) =>
  queryOptions({
    queryKey: ['tracks', assetId],
    queryFn: () => requestJson('get /assets/{id}/tracks', CaptionTracksSchema, { path: { id: assetId } }),
    staleTime: 0,
  });

const LOOK_MILLIS = 700;

/** What was heard in a film, and how far its making is: asked again and again while it is made. */
export const filmWorkQuery = (assetId: string) =>
  queryOptions({
    queryKey: ['film', assetId],
    queryFn: () => requestJson('get /assets/{id}/film', FilmWorkSchema, { path: { id: assetId } }),
    staleTime: 0,
    refetchInterval: ({ state }) =>
      state.data?.job && ['waiting', 'running'].includes(state.data.job.state) ? LOOK_MILLIS : false,
  });

/** Orders a film to be made, or stops that. */
export async function orderFilm(assetId: string, deed: 'make' | 'stop'): Promise<void> {
  const work = await requestJson(`post /assets/{id}/film/${deed}`, FilmWorkSchema, { path: { id: assetId } });
  queryClient.setQueryData(filmWorkQuery(assetId).queryKey, work);
}

const isSame = (one: CaptionTrack, other: Pick<CaptionTrack, 'kind' | 'language'>) =>
  one.kind === other.kind && one.language === other.language;

/** Keeps a track on the version that it was made from. Throws an ApiProblem with 412 where somebody has changed it meanwhile. */
export async function keepTrack(assetId: string, track: CaptionTrack): Promise<CaptionTrack> {
  const { kind, language, version, cues } = track;
  const kept = await requestJson('put /assets/{id}/tracks/{kind}/{language}', CaptionTrackSchema, {
    path: { id: assetId, kind, language },
    version,
    body: { cues: cues.map((cue) => ({ ...cue })) },
  });
  await tellTracks(assetId, (all) => [...all.filter((one) => !isSame(one, kept)), kept]);
  return kept;
}

export async function removeTrack(
  assetId: string,
  { kind, language }: Pick<CaptionTrack, 'kind' | 'language'>,
): Promise<void> {
  await requestVoid('delete /assets/{id}/tracks/{kind}/{language}', {
    path: { id: assetId, kind, language },
  });
  await tellTracks(assetId, (all) => all.filter((one) => !isSame(one, { kind, language })));
}

/** The piece is told anew wherever it is shown: which languages it has is part of it. */
async function tellTracks(
  assetId: string,
  change: (all: readonly CaptionTrack[]) => CaptionTrack[],
): Promise<void> {
  queryClient.setQueryData(tracksQuery(assetId).queryKey, (all) => all && change(all));
  await tellPiece(assetId);
}

/** What others have made of the tracks meanwhile. */
export const lookAgain = (assetId: string): Promise<void> =>
  queryClient.invalidateQueries({ queryKey: ['tracks', assetId] });

export async function tellPiece(assetId: string): Promise<void> {
  putPieces([await requestJson('get /assets/{id}', AssetSchema, { path: { id: assetId } })]);
}
