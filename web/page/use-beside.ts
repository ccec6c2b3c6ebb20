import { useSearchParams } from 'react-router';
import { useOffer } from '../frame/commands.ts';

/** What stands beside the sheet in place of the label; the address says so, and Back leads to the sheet. */
export type Beside = { readonly kind: 'label' | 'source' | 'translation' } | VersionsBeside;

/** The versions of the page, and the one that it is compared with. */
interface VersionsBeside {
  readonly kind: 'versions';
  readonly versionId: string | null;
}

/** The one address that names no version. */
const LIST = 'list';

function besideIn(params: URLSearchParams): Beside {
  const versions = params.get('versions');
  if (params.get('source') === 'yes') return { kind: 'source' };
  if (params.get('translation') === 'yes') return { kind: 'translation' };
  if (versions) return { kind: 'versions', versionId: versions === LIST ? null : versions };
  return { kind: 'label' };
}

export function useBeside() {
  const [params, setParams] = useSearchParams();
  const beside = besideIn(params);
  const open = (next: Beside) =>
    setParams((now) => {
      now.delete('source');
      now.delete('versions');
      now.delete('translation');
      if (next.kind === 'source' || next.kind === 'translation') now.set(next.kind, 'yes');
      if (next.kind === 'versions') now.set('versions', next.versionId ?? LIST);
      return now;
    });
  useOffer([
    ...(beside.kind === 'label' ? [] : [{ words: 'Back to the sheet', act: () => open({ kind: 'label' }) }]),
    ...(beside.kind === 'source'
      ? []
      : [{ words: 'Source of this page', act: () => open({ kind: 'source' }) }]),
    ...(beside.kind === 'versions'
      ? []
      : [{ words: 'Versions of this page', act: () => open({ kind: 'versions', versionId: null }) }]),
  ]);
  return { beside, open };
}
