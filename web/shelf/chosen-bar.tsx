import { useQuery } from '@tanstack/react-query';
import { DropdownMenu } from 'radix-ui';
import { toast } from 'sonner';
import type { Asset } from '#api/assets.ts';
import { PageSchema, type PageSummary, SavedPageSchema } from '#api/pages.ts';
import { may } from '#api/people.ts';
import { LICENCE_IDS, licenceTerms } from '#core/rights/licences.ts';
import { ask, sayFailure } from '../api/client.ts';
import { foldersQuery, meQuery, pagesQuery } from '../api/queries.ts';
import { changePiece } from '../pieces/pieces.ts';
import { Button } from '../ui/button.tsx';

/** What can be done with the chosen pieces. */
export function ChosenBar({
  assets,
  onClear,
}: {
  readonly assets: readonly Asset[];
  readonly onClear: () => void;
}) {
  const { data: me } = useQuery(meQuery);
  const pages = useQuery(pagesQuery);
  const folders = useQuery(foldersQuery);
  if (!me) return null;
  const forEach = async (work: (asset: Asset) => Promise<void>, done: string) => {
    try {
      for (const asset of assets) await work(asset);
      toast(done);
    } catch (error) {
      toast.error(sayFailure(error));
    }
  };
  const count = assets.length === 1 ? '1 piece' : `${assets.length} pieces`;
  return (
    <div className="shelf-chosen" role="toolbar" aria-label="With the chosen pieces">
      <strong>{assets.length} chosen</strong>
      {may(me.role, 'edit-pages') ? (
        <Choose
          words="Put on a tray..."
          choices={(pages.data ?? []).map((page) => [page.id, page.title || 'Untitled page'] as const)}
          onChoose={(id) =>
            void putOnTray(
              assets,
              pages.data?.find((page) => page.id === id),
            )
          }
        />
      ) : null}
      <Choose
        words="Move..."
        choices={(folders.data ?? []).map(
          (folder) => [folder.path, folder.path.replaceAll('/', ' / ')] as const,
        )}
        onChoose={(folder) =>
          void forEach(
            (asset) => changePiece(asset.id, { folder }, 'moving a piece'),
            `${count} moved to ${folder}.`,
          )
        }
      />
      {may(me.role, 'say-rights') ? (
        <Choose
          words="Licence..."
          choices={LICENCE_IDS.map((id) => [id, licenceTerms(id).name] as const)}
          onChoose={(id) => {
            const licence = LICENCE_IDS.find((one) => one === id);
            if (licence)
              void forEach(
                (asset) => changePiece(asset.id, { label: { licence } }, 'the licence'),
                `${count} now: ${licenceTerms(licence).short}.`,
              );
          }}
        />
      ) : null}
      <Button onClick={onClear}>Clear</Button>
    </div>
  );
}

interface ChooseProps {
  readonly words: string;
  readonly choices: readonly (readonly [string, string])[];
  readonly onChoose: (value: string) => void;
}

function Choose({ words, choices, onChoose }: ChooseProps) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <Button>{words}</Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          className="popover"
          side="top"
          sideOffset={8}
          style={{ maxHeight: '60vh', overflow: 'auto' }}
        >
          {choices.map(([value, says]) => (
            <DropdownMenu.Item key={value} className="menu-item" onSelect={() => onChoose(value)}>
              {says}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

async function putOnTray(assets: readonly Asset[], page: PageSummary | undefined): Promise<void> {
  if (!page) return;
  try {
    const { doc, version } = await ask(PageSchema, `/pages/${page.id}`);
    const tray = [...new Set([...doc.tray, ...assets.map((asset) => asset.id)])];
    await ask(SavedPageSchema, `/pages/${page.id}`, {
      method: 'PUT',
      body: { doc: { ...doc, tray } },
      version,
    });
    toast(`${assets.length === 1 ? '1 piece' : `${assets.length} pieces`} put on the tray of ${page.title}.`);
  } catch (error) {
    toast.error(sayFailure(error));
  }
}
