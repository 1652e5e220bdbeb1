// Brings a checkout to a state in which it can run: packages installed, pages and server built.
// Uses nothing but Node, since on a fresh clone there is nothing else.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const stamps = join(root, '.cache');

/** Runs a command in the project's root; ends this process when it fails. */
export function run(command, args, options = {}) {
  const { status } = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options });
  if (status !== 0) process.exit(status ?? 1);
}

/** What is there when packages are installed: their list, and the one part that is compiled here. */
const installed = join(root, 'node_modules', '.package-lock.json');
const compiled = join(root, 'node_modules/better-sqlite3/build/Release/better_sqlite3.node');

/** Installs packages when there are none, or the lock file is newer than they are. */
export function installPackages() {
  if (fetchPackages()) run('npm', COMPILE);
}

/** Compiles what packages bring as source. */
export const COMPILE = ['rebuild', '--loglevel=error'];

/** Fetches packages as they were published. @returns whether they must be compiled still */
export function fetchPackages() {
  const wanted = join(root, 'package-lock.json');
  if (!existsSync(installed) || statSync(installed).mtimeMs < statSync(wanted).mtimeMs) {
    console.log('Installing packages; this takes a few minutes the first time.');
    run('npm', ['ci', '--ignore-scripts', '--no-audit', '--no-fund', '--loglevel=error']);
  }
  return !existsSync(compiled);
}

/** Builds pages and server when a source is newer than the build. */
export function buildIfStale() {
  const sources = ['core', 'document', 'codec', 'server', 'web', 'cli', 'demo'].flatMap((name) =>
    filesIn(join(root, 'packages', name)),
  );
  const wanted = hashOf([
    ...sources,
    join(root, 'package-lock.json'),
    join(root, 'scripts/build.mjs'),
  ]);
  if (existsSync(join(root, 'dist', 'server', 'main.js')) && stamp('build') === wanted) return;
  console.log('Building.');
  run(process.execPath, [join(root, 'scripts', 'build.mjs')]);
  setStamp('build', wanted);
}

function filesIn(folder) {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory())
      return entry.name === 'node_modules' || entry.name === 'photos' ? [] : filesIn(path);
    return entry.name.includes('.test.') ? [] : [path];
  });
}

// Names and times are enough: a touched file costs a build, never a stale one.
function hashOf(files) {
  const hash = createHash('sha256');
  for (const file of files.sort()) {
    const { mtimeMs, size } = statSync(file);
    const content = file.endsWith('package-lock.json') ? readFileSync(file) : `${mtimeMs} ${size}`;
    hash.update(`${file}\n`).update(content);
  }
  return hash.digest('hex');
}

function stamp(name) {
  const file = join(stamps, name);
  return existsSync(file) ? readFileSync(file, 'utf8') : null;
}

function setStamp(name, value) {
  mkdirSync(stamps, { recursive: true });
  writeFileSync(join(stamps, name), value);
}
