/* global fetch */
// A server in a process of its own, and somebody who is signed in.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { root } from '../scripts/install.mjs';
import { MEMORY, NODE_FLAGS } from '../scripts/serve.mjs';

/** Starts a server on a folder; gives its process, its address, and when it has ended. */
export function start(folder) {
  const child = spawn(process.execPath, [...NODE_FLAGS, join(root, 'packages/server/dist/main.mjs')], {
    env: {
      ...MEMORY,
      ...process.env,
      OSIER_ROOT: root,
      OSIER_DATA: folder,
      OSIER_PORT: '0',
      OSIER_DEMO: '1',
      OSIER_LOG: 'silent',
    },
  });
  const ended = new Promise((resolve) =>
    child.on('exit', (code, signal) => {
      if (code || (signal && signal !== 'SIGKILL'))
        process.stderr.write(`The server ended: ${code ?? signal}\n`);
      resolve();
    }),
  );
  child.stderr.pipe(process.stderr);
  return new Promise((resolve, reject) => {
    child.on('error', reject);
    child.stdout.on('data', (d) => {
      const address = /http:\/\/\S+/.exec(d.toString())?.[0];
      if (address) resolve({ process: child, address, ended });
    });
  });
}

/** Does on a store what a server does by itself when nobody asks for anything: what is measured then is not measured beside it. */
export function settle(folder) {
  const child = spawn(process.execPath, [...NODE_FLAGS, join(root, 'packages/server/dist/settle.mjs')], {
    env: { ...MEMORY, ...process.env, OSIER_ROOT: root, OSIER_DATA: folder, OSIER_DEMO: '1' },
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  return new Promise((resolve, reject) => {
    child.on('error', reject);
    child.on('exit', (code) => (code === 0 ? resolve() : reject(new Error(`Settling ended with ${code}.`))));
  });
}

/** Signed in, with what asks the interface and what waits for a job. */
export async function client({ address }) {
  const signed = await fetch(`${address}/api/sign-in/demo`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: '{"person":1}',
  });
  const cookie = signed.headers.get('set-cookie').split(';')[0];
  const ask = async (method, path, body) => {
    const json = body !== undefined && !(body instanceof Uint8Array);
    const response = await fetch(`${address}/api${path}`, {
      method,
      headers: { cookie, ...(json ? { 'content-type': 'application/json' } : {}) },
      body: json ? JSON.stringify(body) : body,
    });
    const answer = await response.json();
    if (!response.ok) throw new Error(`${path}: ${JSON.stringify(answer)}`);
    return answer;
  };
  /** The bytes of a file that is asked for by what is sent. */
  const file = async (path, body) => {
    const headers = { cookie, 'content-type': 'application/json' };
    const response = await fetch(`${address}/api${path}`, {
      method: 'POST',
      headers,
      body: JSON.stringify(body),
    });
    if (!response.ok) throw new Error(`${path}: ${await response.text()}`);
    return response.arrayBuffer();
  };
  const until = async (id) => {
    for (;;) {
      const job = await ask('GET', `/jobs/${id}`);
      if (job.state === 'done') return job;
      if (job.state === 'failed' || job.state === 'cancelled') throw new Error(job.message);
      await new Promise((r) => setTimeout(r, 200));
    }
  };
  return { ask, file, until };
}
