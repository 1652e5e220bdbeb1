import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { DonorMap } from '@tersum/core';
import { openDatabase } from '../db/open.js';
import { ContentStore, contentName } from './files.js';
import { SearchStore } from './searches.js';

const MIGRATIONS = join(__dirname, '../../migrations');
const SEARCH = '11111111-1111-4111-8111-111111111111';

let folder = '';
beforeEach(async () => {
  folder = await mkdtemp(join(tmpdir(), 'tersum-searches-'));
});
afterEach(() => rm(folder, { recursive: true, force: true }));

const map: DonorMap = {
  rect: { x: 3, y: 4, width: 5, height: 2 },
  dx: Int16Array.from({ length: 10 }, (_, i) => 40 - i),
  dy: Int16Array.from({ length: 10 }, (_, i) => -300 * i),
  confidence: Uint8Array.from({ length: 10 }, (_, i) => 25 * i),
};

const files = (): ContentStore => new ContentStore(join(folder, 'maps'));
const database = () => openDatabase(join(folder, 'tersum.db'), MIGRATIONS);

describe('what searches ended in', () => {
  test('is at hand at once, and there after a restart once it is kept', async () => {
    const db = database();
    const store = new SearchStore(db, files());
    const { found, kept } = await store.keep(SEARCH, map, 'below');
    expect(await store.find(SEARCH)).toBe(found);
    await kept;
    db.$client.close();

    const again = database();
    const later = new SearchStore(again, files());
    const known = (await later.find(SEARCH))!;
    expect(known).toMatchObject({ hash: found.hash, below: 'below' });
    expect(known.map).toEqual(map);
    const packed = (await later.packed(SEARCH))!;
    expect(contentName(packed.bytes)).toBe(found.hash);
    expect(await later.find(SEARCH.replace('1', '2'))).toBeUndefined();
    again.$client.close();
  });

  test('is waited for by whoever else asks while it is being written', async () => {
    const slow = files();
    const write = slow.write.bind(slow);
    let go = (): void => undefined;
    const gate = new Promise<void>((resolve) => (go = resolve));
    slow.write = (bytes) => gate.then(() => write(bytes));
    const db = database();
    const store = new SearchStore(db, slow);
    const { found, kept } = await store.keep(SEARCH, map, 'below');
    const told: string[] = [];
    const asked = [
      store.find(SEARCH).then((known) => told.push(`found ${known?.hash}`)),
      store.packed(SEARCH).then((packed) => told.push(`packed ${packed?.hash}`)),
    ];
    await new Promise(setImmediate);
    expect(told).toEqual([]);
    go();
    await Promise.all([kept, ...asked]);
    expect(told.sort()).toEqual([`found ${found.hash}`, `packed ${found.hash}`]);
    db.$client.close();
  });

  test('is forgotten where it cannot be kept, so that it is searched again', async () => {
    const full = files();
    full.write = () => Promise.reject(new Error('no space left'));
    const db = database();
    const store = new SearchStore(db, full);
    const { kept } = await store.keep(SEARCH, map, 'below');
    await expect(kept).rejects.toThrow('no space left');
    expect(await store.find(SEARCH)).toBeUndefined();
    db.$client.close();
  });
});
