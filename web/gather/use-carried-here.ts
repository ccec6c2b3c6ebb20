import { useNavigate } from 'react-router';
import type { Hosts } from '#core/embed/host.ts';
import { bringIn } from '../arrivals/arrivals.ts';
import { readCarried } from '../arrivals/carried.ts';
import { carriedText } from '../arrivals/carried-text.ts';
import { filesOfDrop } from '../arrivals/dropped.ts';
import { type GatherAsked, withAsked } from './gather-address.ts';

/** Files come in; what embeds goes where embeds are read; a page of the web is read here for its pictures. */
export function useCarriedHere(
  ask: (change: Readonly<Record<string, string | null>>) => void,
  { pageId, wantId }: Pick<GatherAsked, 'pageId' | 'wantId'>,
  { folder, hosts }: { readonly folder: string; readonly hosts: Hosts },
): (data: DataTransfer) => boolean {
  const navigate = useNavigate();
  return (data) => {
    const carried = readCarried(data, hosts);
    if (carried.kind === 'files')
      void filesOfDrop(data).then((files) => bringIn(files, folder, { pageId, wantId: null }));
    else if (carried.kind === 'embeds' || carried.kind === 'refused')
      navigate(
        `/embeds?${withAsked(new URLSearchParams(), { text: carriedText(data), page: pageId, want: wantId })}`,
      );
    else if (carried.kind === 'address') ask({ address: carried.address, clip: null });
    return carried.kind !== 'nothing';
  };
}
