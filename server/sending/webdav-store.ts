import type { Outbound, Probed } from '../outbound/outbound.ts';
import { OutboundProblem } from '../outbound/problem.ts';
import type { FileStore } from './file-site.ts';
import { SendProblem } from './way.ts';

interface Door {
  readonly outbound: Outbound;
  /** The address of the folder. */
  readonly address: string;
  readonly login: { readonly user: string; readonly password: string };
  readonly signal: AbortSignal;
}

const LIMITS = { bytes: 5_000_000, millis: 30_000 };
/** A file of 150 MB over a line of 10 Mbit/s takes two minutes. */
const FILE_LIMITS = { bytes: 1_000_000, millis: 180_000 };

/** Files in a folder that is reached by WebDAV (RFC 4918). Folders that are missing are made (9.3, MKCOL). */
export function webdavStore({ outbound, address, login, signal }: Door): FileStore {
  const base = new URL(address.endsWith('/') ? address : `${address}/`);
  const { host } = base;
  const at = (path: string) => new URL(path, base).href;
  const tell = (method: 'GET' | 'PUT' | 'DELETE' | 'MKCOL', path: string, body?: Buffer, type?: string) =>
    outbound.tell(
      at(path),
      { method, login, ...(body ? { body } : {}), ...(type ? { type } : {}) },
      { limits: body ? FILE_LIMITS : LIMITS, signal },
    );
  const made = new Set<string>();
  const makeFolders = async (path: string) => {
    const parts = path.split('/').slice(0, -1);
    for (const [index] of parts.entries()) {
      const folder = `${parts.slice(0, index + 1).join('/')}/`;
      if (made.has(folder)) continue;
      let answer = await tell('MKCOL', folder);
      // 409: what it is to be made in is not there itself.
      if (answer.status === 409 && index === 0) {
        await tell('MKCOL', '');
        answer = await tell('MKCOL', folder);
      }
      // 405: it is there already (9.3.1).
      if (answer.status !== 405) assertDone(answer, host, `The folder “${folder}” could not be made`);
      made.add(folder);
    }
  };
  return {
    async put(path, bytes, type) {
      await makeFolders(path);
      assertDone(await tell('PUT', path, bytes, type), host, `“${path}” was not taken`);
    },
    async read(path) {
      const answer = await tell('GET', path);
      if (answer.status === 404 || answer.status === 410) return null;
      assertDone(answer, host, `“${path}” could not be read`);
      return answer.bytes;
    },
    async remove(path) {
      const answer = await tell('DELETE', path);
      if (answer.status !== 404 && answer.status !== 410)
        assertDone(answer, host, `“${path}” was not removed`);
    },
  };
}

/** What went wrong, by the status (RFC 4918, 11; RFC 9110, 15). */
function assertDone({ status, headers }: Probed, host: string, what: string): void {
  if (status >= 200 && status < 300) return;
  if (status === 507)
    throw new SendProblem(`${what}: ${host} has no room left. What is sent already is not sent again.`);
  if (status === 429 || status >= 500) {
    const seconds = Number(headers['retry-after']);
    const waitMillis = Number.isFinite(seconds) && seconds > 0 ? seconds * 1000 : null;
    throw new OutboundProblem(status === 429 ? 'busy' : 'server-error', host, { waitMillis });
  }
  if (status === 401 || status === 403)
    throw new SendProblem(
      `${what}: ${host} does not take the name and password of the house, or lets it write nothing there. The site owner sets others in House rules; what is sent already is not sent again.`,
    );
  if (status === 423)
    throw new SendProblem(`${what}: somebody holds it at ${host}. Send it again once that has ended.`);
  throw new SendProblem(`${what}: ${host} answered with ${status}. What is sent already is not sent again.`);
}
