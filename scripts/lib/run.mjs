import { spawn } from 'node:child_process';
import { track } from './lifetime.mjs';

/**
 * Runs a program and waits for it; it ends with this script.
 *
 * @returns its exit code and what it printed (empty where it prints straight to the terminal)
 */
export function run(command, args, { quiet = false, ...options } = {}) {
  return new Promise((resolve, reject) => {
    const child = track(
      spawn(command, args, {
        stdio: quiet ? ['ignore', 'pipe', 'pipe'] : ['ignore', 'inherit', 'inherit'],
        detached: true,
        ...options,
      }),
    );
    let output = '';
    child.stdout?.on('data', (part) => (output += part));
    child.stderr?.on('data', (part) => (output += part));
    child.on('error', reject);
    child.on('close', (code, signal) => resolve({ code: code ?? (signal ? 1 : 0), output }));
  });
}

/** Runs a program and throws, with what it printed, where it fails. */
export async function must(command, args, options) {
  const { code, output } = await run(command, args, options);
  if (code !== 0) throw new Error(`${command} ${args.join(' ')} failed (${code})\n${output}`);
  return output;
}

const LINE_EVERY_MS = 10_000;

/**
 * Says what is being done as long as it is: on a terminal a line that moves, else a line every ten seconds.
 */
export async function saying(text, work) {
  const began = Date.now();
  const seconds = () => Math.round((Date.now() - began) / 1000);
  const isTerminal = process.stderr.isTTY === true;
  say(`${text} …`);
  let told = began;
  const timer = setInterval(() => {
    if (isTerminal)
      process.stderr.write(`\r  ${'·'.repeat(1 + (seconds() % 5)).padEnd(5)} ${seconds()} s`);
    else if (Date.now() - told >= LINE_EVERY_MS) {
      told = Date.now();
      say(`  ${text.toLowerCase()}, ${seconds()} s so far`);
    }
  }, 1000);
  try {
    return await work();
  } finally {
    clearInterval(timer);
    if (isTerminal) process.stderr.write('\r\u001b[K');
  }
}

/** Says what is being done, on stderr, so that stdout stays for results. */
export const say = (text) => process.stderr.write(`${text}\n`);
