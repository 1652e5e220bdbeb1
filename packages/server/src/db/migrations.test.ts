import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openDatabase } from './open.js';

const MIGRATIONS = join(import.meta.dirname, '../../migrations');

test('what may be mended, decided picture by picture before, holds for the job afterwards', () => {
  const folder = mkdtempSync(join(tmpdir(), 'migrations-'));
  try {
    // The database as it was before jobs had a policy.
    const old = join(folder, 'old');
    cpSync(MIGRATIONS, old, { recursive: true });
    const journal = join(old, 'meta/_journal.json');
    const { entries, ...rest } = JSON.parse(readFileSync(journal, 'utf8')) as {
      entries: { tag: string }[];
    };
    const before = entries.filter(({ tag }) => tag < '0007');
    writeFileSync(journal, JSON.stringify({ ...rest, entries: before }));
    const file = join(folder, 'tersum.sqlite');
    const { $client: first } = openDatabase(file, old);
    for (const [job, policy] of [
      ['fence', 'picture'],
      ['print', 'documentary'],
    ] as const) {
      first.exec(`INSERT INTO jobs (id, title, client, notes, state, created_at)
        VALUES ('${job}', '${job}', '', '', 'new', '2026-11-01T00:00:00.000Z')`);
      first.exec(`INSERT INTO pictures (id, job_id, name, original, format, width, height, channels, bits, version, added_at)
        VALUES ('${job}-1', '${job}', 'a', 'x', 'png', 1, 1, 3, 8, 0, '2026-11-01T00:00:00.000Z')`);
      first.exec(`INSERT INTO surveys (picture_id, state, settings)
        VALUES ('${job}-1', 'ready', '{"policy":"${policy}"}')`);
    }
    first.close();
    const { $client: now } = openDatabase(file, MIGRATIONS);
    expect(now.prepare('SELECT id, policy FROM jobs ORDER BY id').all()).toEqual([
      { id: 'fence', policy: 'picture' },
      { id: 'print', policy: 'documentary' },
    ]);
    now.close();
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});
