// npm test: installs what is missing, then lint, types, unit tests and browser tests, and sums them up.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { buildIfStale, COMPILE, fetchPackages, root } from './ready.mjs';

const CHROMIUM = '/usr/bin/chromium';

const uncompiled = fetchPackages();
// What does not wait for one another runs side by side: two cores are usual.
await Promise.all([
  ...(uncompiled ? [passes('npm', COMPILE)] : []),
  ensureChromium(),
  passes('npx', ['eslint', '.', '--max-warnings', '0']),
  passes('npx', ['prettier', '--check', '.', '--log-level', 'warn']),
  passes(process.execPath, ['scripts/types.mjs']),
]);
buildIfStale();

const unit = await counted('npx', ['jest', '--colors=false', '--maxWorkers=2']);
const browser = await counted('npx', ['playwright', 'test']);
const passed = unit.passed + browser.passed;
const failed = unit.failed + browser.failed;
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(unit.code || browser.code || (passed === 0 ? 1 : 0));

async function ensureChromium() {
  if (existsSync(CHROMIUM)) return;
  const root = process.getuid?.() === 0;
  const apt = spawnSync('apt-get', ['--version']).status === 0;
  if (root && apt) {
    console.log('Installing Chromium for the browser tests.');
    await passes('apt-get', ['update', '-qq']);
    const packages = ['chromium', 'fonts-liberation'];
    await passes('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...packages]);
    return;
  }
  console.error(
    `Chromium is missing: install Debian's package 'chromium' (expected at ${CHROMIUM}).`,
  );
  process.exit(1);
}

/** Runs a check; the first that fails ends everything. */
function passes(command, args) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd: root, stdio: 'inherit' });
    child.on('exit', (code) => (code === 0 ? resolve() : process.exit(code ?? 1)));
  });
}

/** Runs a test runner, passing its output on, and reads its closing counts. */
function counted(command, args) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] });
    let text = '';
    for (const stream of [child.stdout, child.stderr])
      stream.on('data', (chunk) => {
        process.stdout.write(chunk);
        text += chunk;
      });
    child.on('exit', (code) => {
      const closing = text
        .split('\n')
        .filter((line) => /^Tests:|^\s+\d+ (passed|failed|flaky)/.test(line));
      const sum = (word) =>
        closing.reduce(
          (all, line) => all + Number(new RegExp(`(\\d+) ${word}`).exec(line)?.[1] ?? 0),
          0,
        );
      resolve({ code: code ?? 1, passed: sum('passed'), failed: sum('failed') });
    });
  });
}
