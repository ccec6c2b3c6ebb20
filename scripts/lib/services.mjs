// Starts the stand-ins for the world outside and the app, each as a process of its own, and ends them together. One
// that ends by itself is started again.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { root, say } from './machine.mjs';

/** How often a process is started again within a minute before it is left alone. */
const RESTARTS = 5;
const MINUTE_MILLIS = 60_000;
const RESTART_AFTER_MILLIS = 500;
/** A process that was told to end and has not by then is ended. Over the server's own limit of 10 s. */
const END_LIMIT_MILLIS = 15_000;

/**
 * `listening` resolves once all answer, and rejects when one ends before. `whole` resolves once the demo hangs too, or
 * there is none. `ended` resolves when one has ended too often
 * to be started again. `children` are the processes as they run now.
 */
export function startServices({ env, port, standIns = env.PLACARD_DEMO !== '0' }) {
  const outsidePort = port + 1;
  const outside = { ...env, OUTSIDE_PORT: String(outsidePort), OUTSIDE_PICTURES: outsidePictures(env) };
  const world = standIns ? keep('The world outside', 'outside/main.ts', outside) : null;
  // What the server goes on with at once, as a gathering that was cut off, asks the world outside.
  const server = keep('The server', 'server/main.ts', outside, world?.listening);
  const kept = world ? [world, server] : [server];
  return {
    listening: Promise.all(kept.map(({ listening }) => listening)),
    whole: kept.at(-1).whole,
    ended: Promise.race(kept.map(({ ended }) => ended)),
    stop: () => Promise.all(kept.map(({ stop }) => stop())),
    get children() {
      return kept.flatMap(({ child }) => child ?? []);
    },
  };
}

/** Keeps one process running, and says why it ended. */
function keep(name, script, env, after = Promise.resolve()) {
  const starts = [];
  let isStopping = false;
  let tellEnded;
  let tellWhole;
  const kept = {
    child: null,
    whole: new Promise((resolve) => (tellWhole = resolve)),
    ended: new Promise((resolve) => (tellEnded = resolve)),
  };
  const start = () => {
    starts.push(Date.now());
    // One process and no wrapper around it, so that a signal reaches the server itself.
    const child = spawn(process.execPath, ['--import', 'tsx', script], {
      cwd: root,
      env,
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    });
    kept.child = child;
    let isListening = false;
    const listening = new Promise((resolve, reject) => {
      child.on('message', (message) => {
        if (message === 'whole') tellWhole();
        isListening = true;
        resolve();
      });
      child.once('exit', (code, signal) => reject(new Error(`${name} ended with ${signal ?? code}.`)));
    });
    child.once('exit', (code, signal) => {
      if (isStopping) return;
      const isOften = starts.filter((at) => at > Date.now() - MINUTE_MILLIS).length > RESTARTS;
      if (isOften || (!isListening && starts.length === 1)) {
        say(`${name} ended (${signal ?? `code ${code}`}).`);
        tellEnded();
        return;
      }
      say(`${name} ended (${signal ?? `code ${code}`}) and is started again.`);
      setTimeout(() => !isStopping && start().catch(() => undefined), RESTART_AFTER_MILLIS);
    });
    return listening;
  };
  kept.listening = after.then(() => (isStopping ? undefined : start()));
  kept.stop = () => {
    isStopping = true;
    return kept.child ? end(kept.child) : undefined;
  };
  return kept;
}

/** Where the pictures lie that the stand-ins hand out: painted once, beside the demo's own. */
function outsidePictures(env) {
  const paintings = env.PLACARD_PAINTINGS ?? join(env.PLACARD_DATA ?? join(root, 'var'), 'paintings');
  return join(paintings, `outside-v1-${env.PLACARD_OUTSIDE_SHARE ?? '1'}`);
}

function end(child) {
  if (child.exitCode !== null || child.signalCode !== null) return undefined;
  return new Promise((resolve) => {
    const late = setTimeout(() => child.kill('SIGKILL'), END_LIMIT_MILLIS);
    child.once('exit', () => {
      clearTimeout(late);
      resolve();
    });
    child.kill('SIGTERM');
  });
}
