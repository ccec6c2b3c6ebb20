// Starts the stand-ins for the world outside and the app, each as a process of its own, and ends them together.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { root } from './machine.mjs';

/** Resolves once both answer. `ended` resolves when either ends by itself. */
export async function startServices({ env, port, standIns = env.PLACARD_DEMO !== '0' }) {
  const processes = [];
  const start = (script, more = {}) => {
    // One process and no wrapper around it, so that a signal reaches the server itself.
    const child = spawn(process.execPath, ['--import', 'tsx', script], {
      cwd: root,
      env: { ...env, ...more },
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    });
    processes.push(child);
    return new Promise((resolve, reject) => {
      child.once('message', resolve);
      child.once('exit', (code) => reject(new Error(`${script} ended with ${code} before it answered.`)));
    });
  };
  const stop = () => Promise.all(processes.map(end));
  const outsidePort = port + 1;
  const outside = { OUTSIDE_PORT: String(outsidePort), OUTSIDE_PICTURES: outsidePictures(env) };
  try {
    await Promise.all([
      standIns ? start('outside/main.ts', outside) : undefined,
      start('server/main.ts', outside),
    ]);
  } catch (error) {
    await stop();
    throw error;
  }
  const ended = Promise.race(processes.map((child) => new Promise((resolve) => child.once('exit', resolve))));
  return { stop, ended, processes };
}

/** Where the pictures lie that the stand-ins hand out: painted once, beside the demo's own. */
function outsidePictures(env) {
  const paintings = env.PLACARD_PAINTINGS ?? join(env.PLACARD_DATA ?? join(root, 'var'), 'paintings');
  return join(paintings, `outside-v1-${env.PLACARD_OUTSIDE_SHARE ?? '1'}`);
}

function end(child) {
  if (child.exitCode !== null || child.signalCode !== null) return undefined;
  return new Promise((resolve) => {
    child.once('exit', resolve);
    child.kill('SIGTERM');
  });
}
