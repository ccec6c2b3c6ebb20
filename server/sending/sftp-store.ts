import { createHash, randomUUID } from 'node:crypto';
import { connect, type Socket } from 'node:net';
import { posix } from 'node:path';
import SftpClient from 'ssh2-sftp-client';
import type { Outbound } from '../outbound/outbound.ts';
import { OutboundProblem } from '../outbound/problem.ts';
import type { FileStore } from './file-site.ts';
import { SendProblem } from './way.ts';

interface Door {
  readonly outbound: Outbound;
  /** The host, with its port where that is another than 22. */
  readonly host: string;
  readonly user: string;
  /** A password, or a private key as a file of OpenSSH or PEM holds it. */
  readonly secret: string;
  readonly folder: string;
  /** SHA-256 of the key that the host is known by, as `ssh-keygen -l` says it; empty where nobody has said it. */
  readonly hostKey: string;
  readonly signal: AbortSignal;
}

const USUAL_PORT = 22;
const CONNECT_MILLIS = 15_000;

/**
 * Files in a folder that is reached by SFTP. The host is known by its key, which somebody has compared: one that nobody knows, or that
 * has changed, is told nothing, not even the password (RFC 4251, 4.1).
 */
export function sftpStore(door: Door): FileStore {
  let opened: Promise<SftpClient> | null = null;
  const client = () => {
    opened ??= open(door);
    return opened;
  };
  const at = (path: string) => posix.join(door.folder || '.', path);
  const doing = async <T>(path: string, work: (sftp: SftpClient) => Promise<T>): Promise<T> => {
    try {
      return await work(await client());
    } catch (error) {
      throw inWords(error, door.host, path);
    }
  };
  return {
    put: (path, bytes) =>
      doing(path, async (sftp) => {
        const target = at(path);
        await sftp.mkdir(posix.dirname(target), true).catch(() => undefined);
        const part = `${target}.${randomUUID()}.part`;
        await sftp.put(bytes, part);
        // Over what stands there, in one step (OpenSSH, posix-rename@openssh.com); others take away what is there first.
        await sftp.posixRename(part, target).catch(async () => {
          await sftp.delete(target, true);
          await sftp.rename(part, target);
        });
      }),
    read: (path) =>
      doing(path, async (sftp) => {
        if (!(await sftp.exists(at(path)))) return null;
        const read = await sftp.get(at(path));
        return Buffer.isBuffer(read) ? read : null;
      }),
    remove: (path) =>
      doing(path, async (sftp) => {
        await sftp.delete(at(path), true);
      }),
    async close() {
      const sftp = await opened?.catch(() => null);
      await sftp?.end().catch(() => undefined);
    },
  };
}

async function open({ outbound, host, user, secret, hostKey, signal }: Door): Promise<SftpClient> {
  const [name = '', port = `${USUAL_PORT}`] = host.split(':');
  const numeric = await outbound.reach(name, Number(port));
  const sock = await connected(numeric, Number(port), name, signal);
  const sftp = new SftpClient();
  let seen = '';
  try {
    await sftp.connect({
      sock,
      username: user,
      ...(isPrivateKey(secret) ? { privateKey: secret } : { password: secret }),
      readyTimeout: CONNECT_MILLIS,
      hostVerifier: (key: Buffer) => {
        seen = createHash('sha256').update(key).digest('base64').replace(/=+$/, '');
        return seen === hostKey.replace(/^SHA256:/, '').replace(/=+$/, '');
      },
    });
    return sftp;
  } catch (error) {
    sock.destroy();
    const isKnown = seen === '' || seen === hostKey.replace(/^SHA256:/, '').replace(/=+$/, '');
    if (isKnown) throw error;
    throw new SendProblem(
      hostKey === ''
        ? `Nobody has said by which key ${name} is known. It shows SHA256:${seen}. Compare that with what its own people say, and set it in House rules. Nothing was sent.`
        : `${name} shows another key than the one that it is known by: SHA256:${seen}. It may have been renewed, or be another machine. Ask its own people, and set it in House rules. Nothing was sent.`,
    );
  }
}

const isPrivateKey = (secret: string): boolean => /^-----BEGIN [A-Z ]*PRIVATE KEY-----/.test(secret.trim());

function connected(address: string, port: number, host: string, signal: AbortSignal): Promise<Socket> {
  return new Promise((resolve, reject) => {
    const socket = connect({ host: address, port, signal });
    socket.setTimeout(CONNECT_MILLIS, () => socket.destroy(new OutboundProblem('too-slow', host)));
    socket.once('connect', () => {
      socket.setTimeout(0);
      resolve(socket);
    });
    socket.once('error', (error) =>
      reject(
        error instanceof OutboundProblem ? error : new OutboundProblem('unreachable', host, { cause: error }),
      ),
    );
  });
}

function inWords(error: unknown, host: string, path: string): unknown {
  if (error instanceof SendProblem || error instanceof OutboundProblem) return error;
  const [name = ''] = host.split(':');
  const words = error instanceof Error ? error.message : '';
  if (/authentication/i.test(words))
    return new SendProblem(
      `${name} does not take the name with the password or key of the house. The site owner sets others in House rules; what is sent already is not sent again.`,
    );
  if (/permission denied/i.test(words))
    return new SendProblem(
      `“${path}” may not be written at ${name}. What is sent already is not sent again.`,
    );
  if (/no space|quota|failure/i.test(words))
    return new SendProblem(
      `${name} could not write “${path}”; it may have no room left. What is sent already is not sent again.`,
    );
  return new OutboundProblem('broken-off', name, { cause: error });
}
