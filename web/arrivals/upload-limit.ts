import { queryClient } from '../api/queries.ts';

/** What is smaller is sent without asking: its server says the same before the first byte is on its way. */
const LARGE_BYTES = 20_000_000;

/**
 * The most bytes of one file that the server takes (tus 1.0, `Tus-Max-Size`), asked once, and only where a file may be over
 * it; no limit while it cannot be asked, since whoever takes the file says it again.
 */
export async function uploadLimit(files: readonly File[]): Promise<number> {
  if (!files.some(({ size }) => size > LARGE_BYTES)) return Number.POSITIVE_INFINITY;
  return queryClient
    .fetchQuery({
      queryKey: ['upload-limit'],
      queryFn: askLimit,
      staleTime: Number.POSITIVE_INFINITY,
      retry: false,
    })
    .catch(() => Number.POSITIVE_INFINITY);
}

/** The most bytes of one file that the server takes. Throws where it does not say so. */
export async function askLimit(): Promise<number> {
  const response = await fetch('/api/uploads', { method: 'OPTIONS', headers: { 'Tus-Resumable': '1.0.0' } });
  const bytes = Number(response.headers.get('Tus-Max-Size'));
  if (!response.ok || !(bytes > 0)) throw new Error('The server says no limit.');
  return bytes;
}
