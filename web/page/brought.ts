import type { Asset } from '#api/assets.ts';
import type { Hosts } from '#core/embed/host.ts';
import type { Embed } from '#core/embed/model.ts';
import { sayLeftOut } from '#core/page/left-out.ts';
import type { OfferedPicture } from '#core/page/rich-pasted.ts';
import { sayFailure } from '../api/client.ts';
import { assetQuery, queryClient } from '../api/queries.ts';
import { bringIn } from '../arrivals/arrivals.ts';
import { readCarried } from '../arrivals/carried.ts';
import { type FoundFile, filesOfDrop } from '../arrivals/dropped.ts';
import { gather, gathered } from '../arrivals/gatherings.ts';
import { keepEmbed } from '../embeds/held-embeds.ts';
import { looksLikeCode, readInText } from '../embeds/in-text.ts';
import { readingQuery } from '../gather/gather-queries.ts';
import { putPieces } from '../pieces/pieces.ts';
import { addToTray, fillWant, placeOver, placePiece } from '../sheet/commands.ts';
import { asLine, becomeEmbeds, insertAsText, leaveOutLine } from '../sheet/embed-paste.ts';
import type { SheetText } from '../sheet/rich-text.ts';
import { toast } from '../ui/toast.ts';
import { leftOutStore } from './left-out-store.ts';
import type { PageSession } from './use-page-session.ts';

/** Where on a page something was brought. */
export interface Onto {
  readonly pageId: string;
  /** The want it fills, or null. */
  readonly wantId: string | null;
  /** The place on the sheet, or null for the tray. */
  readonly at: number | null;
}

/** Takes files in for a page: onto the tray, into a want, or onto the sheet where they were dropped. */
export function takeFiles(
  { editor }: PageSession,
  files: readonly FoundFile[],
  { pageId, wantId, at }: Onto,
): void {
  // The place moves along while text is written before it.
  let place = at;
  const follow = ({ transaction }: { transaction: { mapping: { map: (pos: number) => number } } }) => {
    if (place !== null) place = transaction.mapping.map(place);
  };
  editor.on('transaction', follow);
  let left = files.length;
  bringIn(files, '', { pageId, wantId }, (arrived) => {
    left -= 1;
    if (left === 0) editor.off('transaction', follow);
    // The page was left meanwhile: then the server puts it on the tray.
    if (editor.isDestroyed) return false;
    if (wantId) fillWant(editor, wantId, arrived.asset.id);
    else if (place !== null)
      placePiece(editor, arrived.asset.id, Math.min(place, editor.state.doc.content.size));
    else addToTray(editor, arrived.asset.id);
    if (!arrived.isNew) toast(arrived.sentence);
    return true;
  });
}

/**
 * Takes a picture in that came with rich text, and puts it where its offer stands by then. One that lies in the text
 * itself is sent as a file is; one of the web is gathered from there. Answers why it could not be had, or null.
 */
export async function takeOffered(
  session: PageSession,
  { address, words }: OfferedPicture,
  pageId: string,
  at: () => number | null,
): Promise<string | null> {
  const { editor } = session;
  try {
    if (address.startsWith('data:')) {
      const file = fileOfData(address, words);
      const place = at();
      if (place !== null) editor.view.dispatch(editor.state.tr.delete(place, place + 1));
      takeFiles(session, [{ file, folder: '' }], { pageId, wantId: null, at: place });
      return null;
    }
    const reading = await queryClient.fetchQuery(readingQuery(address));
    const [picture] = reading.pictures;
    if (!picture) return 'No picture is at its address any more.';
    const wish = { seals: [picture.seal], pageId, wantId: null, folder: '', licence: null };
    const [taking] = (await gathered((await gather(wish)).jobId)).takings;
    if (!taking?.asset) return taking?.sentence ?? 'It was stopped.';
    putPieces([taking.asset]);
    const place = editor.isDestroyed ? null : at();
    if (place !== null) placeOver(editor, taking.asset.id, place);
    return null;
  } catch (error) {
    return sayFailure(error);
  }
}

/** A picture written into an address (RFC 2397, base64) as a file. */
function fileOfData(address: string, words: string): File {
  const [head = '', data = ''] = address.split(',', 2);
  const type = /^data:([^;]+)/.exec(head)?.[1] ?? '';
  const bytes = Uint8Array.from(atob(data), (letter) => letter.charCodeAt(0));
  return new File([bytes], `${words || 'pasted picture'}.${type.split('/')[1]?.replace('+xml', '') ?? ''}`, {
    type,
  });
}

/** Takes pieces in that were dragged here from another window: each is on the shelf already. */
export async function takePieces(
  { editor }: PageSession,
  ids: readonly string[],
  { wantId, at }: Onto,
): Promise<void> {
  try {
    const held = await Promise.all(ids.map((id) => queryClient.fetchQuery(assetQuery(id))));
    if (editor.isDestroyed) return;
    putPieces(held);
    const [first] = held;
    if (wantId && first) fillWant(editor, wantId, first.id);
    // The last first, so that they stand in the order in which they were chosen.
    else if (at !== null) for (const { id } of [...held].reverse()) placePiece(editor, id, at);
    else for (const { id } of held) addToTray(editor, id);
  } catch (error) {
    toast.error(sayFailure(error));
  }
}

/**
 * Takes text that was brought to the sheet, where it is embed code. An address among other words stays a link; code
 * that embeds nothing is kept out of the text, with the reason, unless it is wanted as text. False for any other text.
 */
export function takeText(session: PageSession, text: string, isAlone: boolean, hosts: Hosts): boolean {
  if (!isAlone && !looksLikeCode(text)) return false;
  const read = readInText(text, hosts);
  if (read.kind === 'text') return false;
  if (read.kind === 'embeds') void becomesEmbeds(session, read.embeds, insertAsText(session.editor, text));
  else
    toast.error(read.why, {
      action: { label: 'Put it in as text', onClick: () => insertAsText(session.editor, text) },
      duration: 15_000,
    });
  return true;
}

/**
 * Takes in what was framed or played in rich text, each where it stood: its code is a line of text there for the moment that
 * its host is asked. Code that embeds nothing is left out, with the reason; so is said what became of the rest.
 */
export function takeRichText(
  session: PageSession,
  { embeds, leftOut }: Pick<SheetText, 'embeds' | 'leftOut'>,
  hosts: Hosts,
): void {
  for (const code of embeds) {
    const read = readInText(code, hosts);
    if (read.kind === 'embeds') void becomesEmbeds(session, read.embeds, asLine(code));
    else {
      leaveOutLine(session.editor, asLine(code));
      if (read.kind === 'refused') toast.error(read.why);
    }
  }
  if (leftOut.length > 0)
    toast(sayLeftOut(leftOut).join(' '), {
      action: { label: 'See what', onClick: () => leftOutStore.set(leftOut) },
      duration: 15_000,
    });
}

/** The caption that code came with, where a piece that was held already has another. */
function otherCaption({ caption }: Embed, { label }: Asset): string | null {
  return caption === '' || caption === label.caption ? null : caption;
}

/** Embed code that stands as a line of text, for the moment that its host is asked; then it becomes the embed. */
async function becomesEmbeds(session: PageSession, embeds: readonly Embed[], text: string): Promise<void> {
  try {
    const uses = await Promise.all(
      embeds.map(async (embed) => {
        const { asset } = await keepEmbed(embed);
        return { assetId: asset.id, caption: otherCaption(embed, asset) };
      }),
    );
    if (!becomeEmbeds(session.editor, text, uses))
      for (const { assetId } of uses) addToTray(session.editor, assetId);
  } catch (error) {
    toast.error(`${sayFailure(error)} The text stays as you pasted it.`);
  }
}

/** Takes what was dropped on the tray or pasted beside the text; false for what nothing can be done with. */
export function takeCarried(
  session: PageSession,
  data: DataTransfer,
  onto: Omit<Onto, 'at'>,
  { hosts, goTo }: { readonly hosts: Hosts; readonly goTo: (path: string) => void },
): boolean {
  const carried = readCarried(data, hosts);
  switch (carried.kind) {
    case 'files':
      void filesOfDrop(data).then((files) =>
        takeFiles(session, onto.wantId ? files.slice(0, 1) : files, { ...onto, at: null }),
      );
      return true;
    case 'embeds':
      void ontoTray(session, carried.embeds, onto);
      return true;
    case 'refused':
      toast.error(carried.why);
      return true;
    case 'address':
      goTo(gatherPath(carried.address, onto));
      return true;
    case 'nothing':
      return false;
  }
}

/** A page of the web is read for its pictures on Gather, for a want of this page or for its tray. */
function gatherPath(address: string, { pageId, wantId }: Omit<Onto, 'at'>): string {
  return `/gather?${new URLSearchParams({ page: pageId, ...(wantId ? { want: wantId } : {}), address })}`;
}

async function ontoTray(
  { editor }: PageSession,
  embeds: readonly Embed[],
  { wantId }: Omit<Onto, 'at'>,
): Promise<void> {
  try {
    for (const embed of embeds) {
      const { asset } = await keepEmbed(embed);
      const { id } = asset;
      if (editor.isDestroyed) return;
      const caption = otherCaption(embed, asset);
      if (caption !== null)
        toast(`It is held already, with words of its own. It came with the caption “${caption}”.`);
      if (wantId && embed === embeds[0]) fillWant(editor, wantId, id);
      else addToTray(editor, id);
    }
  } catch (error) {
    toast.error(sayFailure(error));
  }
}
