import { type ChildProcess, execFileSync, spawn } from 'node:child_process';
import { mkdir, writeFile } from 'node:fs/promises';
import { createServer, type Server } from 'node:http';
import { createRequire } from 'node:module';
import { connect, createServer as createSocket } from 'node:net';
import { userInfo } from 'node:os';
import { join } from 'node:path';
import express from 'express';
import { v2 as webdav } from 'webdav-server';

/** A host that takes files, for tests: real servers of real protocols on loopback, each with a folder of its own. */
export interface TestHost {
  readonly port: number;
  readonly end: () => Promise<void>;
}

export async function freePort(): Promise<number> {
  const socket = createSocket().listen(0, '127.0.0.1');
  await new Promise((resolve) => socket.once('listening', resolve));
  const address = socket.address();
  const port = typeof address === 'object' && address ? address.port : 0;
  await new Promise((resolve) => socket.close(resolve));
  return port;
}

const listening = async (server: Server, port: number): Promise<TestHost> => {
  server.listen(port, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  return {
    port,
    end: () =>
      new Promise((resolve) => {
        server.closeAllConnections();
        server.close(() => resolve());
      }),
  };
};

/** What readers get of a folder. */
export function readersOf(folder: string, port: number): Promise<TestHost> {
  return listening(createServer(express().use(express.static(folder))), port);
}

/** A folder behind WebDAV, for one user with a password. */
export async function webdavHost(
  folder: string,
  port: number,
  { user, password }: { readonly user: string; readonly password: string },
): Promise<TestHost> {
  const users = new webdav.SimpleUserManager();
  const rights = new webdav.SimplePathPrivilegeManager();
  rights.setRights(users.addUser(user, password, false), '/', ['all']);
  const server = new webdav.WebDAVServer({
    httpAuthentication: new webdav.HTTPBasicAuthentication(users, 'Saltmere'),
    privilegeManager: rights,
    port,
    hostname: '127.0.0.1',
  });
  await server.setFileSystemAsync('/', new webdav.PhysicalFileSystem(folder));
  await server.startAsync(port);
  return { port, end: async () => void (await server.stopAsync()) };
}

export interface SshHost extends TestHost {
  /** SHA-256 of its key. */
  readonly hostKey: string;
  readonly user: string;
  /** The private key that opens it. */
  readonly privateKey: string;
}

/** OpenSSH's own server on a port and with keys of its own, for whoever runs the tests. */
export async function sshHost(folder: string, port: number): Promise<SshHost> {
  const at = (name: string) => join(folder, name);
  await mkdir(folder, { recursive: true, mode: 0o700 });
  await mkdir('/run/sshd', { recursive: true }).catch(() => undefined);
  for (const name of ['host', 'own'])
    execFileSync('ssh-keygen', ['-q', '-t', 'ed25519', '-N', '', '-f', at(name)]);
  await writeFile(at('allowed'), execFileSync('cat', [at('own.pub')]), { mode: 0o600 });
  await writeFile(
    at('config'),
    [
      `Port ${port}`,
      'ListenAddress 127.0.0.1',
      `HostKey ${at('host')}`,
      `AuthorizedKeysFile ${at('allowed')}`,
      `PidFile ${at('pid')}`,
      'PasswordAuthentication no',
      'UsePAM no',
      'StrictModes no',
      'PermitRootLogin yes',
      'Subsystem sftp internal-sftp',
    ].join('\n'),
  );
  const sshd = spawn('/usr/sbin/sshd', ['-D', '-e', '-f', at('config')], { stdio: 'ignore' });
  await answers(port);
  const says = execFileSync('ssh-keygen', ['-lf', at('host.pub')]).toString('utf8');
  return {
    port,
    hostKey: says.split(' ')[1] ?? '',
    user: userInfo().username,
    privateKey: execFileSync('cat', [at('own')]).toString('utf8'),
    end: () => ended(sshd),
  };
}

/** A store that speaks the S3 protocol, with one bucket. */
export async function bucketHost(folder: string, port: number, bucket: string): Promise<TestHost> {
  const bin = createRequire(import.meta.url).resolve('s3rver/bin/s3rver.js');
  await mkdir(folder, { recursive: true });
  const args = [bin, '-d', folder, '-a', '127.0.0.1', '-p', `${port}`, '-s', '--configure-bucket', bucket];
  const store = spawn(process.execPath, args, { stdio: 'ignore' });
  await answers(port);
  return { port, end: () => ended(store) };
}

async function ended(child: ChildProcess): Promise<void> {
  if (child.exitCode !== null) return;
  const over = new Promise((resolve) => child.once('exit', resolve));
  child.kill('SIGTERM');
  await over;
}

const TRIES = 100;
const PAUSE_MILLIS = 100;

async function answers(port: number): Promise<void> {
  for (let tries = 0; tries < TRIES; tries += 1) {
    const isThere = await new Promise<boolean>((resolve) => {
      const socket = connect({ host: '127.0.0.1', port });
      socket.once('connect', () => {
        socket.destroy();
        resolve(true);
      });
      socket.once('error', () => resolve(false));
    });
    if (isThere) return;
    await new Promise((resolve) => setTimeout(resolve, PAUSE_MILLIS));
  }
  throw new Error(`Nothing answers at port ${port}.`);
}
