import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { expect, test } from '@playwright/test';
import { JobSchema, PictureRecordsSchema, PictureSchema } from '@tersum/document';
import { photo } from './pixels.js';
import { RunningServer } from './server.js';

const KILLS = 50;

test('an acknowledged change survives SIGKILL, fifty times', async () => {
  test.setTimeout(600_000);
  const server = await RunningServer.begin('--no-demo');
  try {
    const post = async (path: string, body: unknown): Promise<unknown> => {
      const answer = await fetch(server.url + path, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify(body),
      });
      expect(answer.status).toBeLessThan(300);
      return answer.json();
    };
    const draft = { title: 'Kill', client: '', due: null, notes: '', state: 'new' };
    const job = JobSchema.parse(await post('/api/jobs', draft));
    const form = new FormData();
    form.append(
      'file',
      new Blob([await readFile(photo('quay-print-light-crop16.png'))]),
      'quay.png',
    );
    const upload = await fetch(`${server.url}/api/jobs/${job.id}/pictures`, {
      method: 'POST',
      body: form,
    });
    const picture = PictureSchema.parse(await upload.json());
    const read = async () =>
      PictureRecordsSchema.parse(
        await (await fetch(`${server.url}/api/pictures/${picture.id}`)).json(),
      );
    const { layers } = await read();
    const made: string[] = [];
    for (let version = 0; version < KILLS; version++) {
      const id = randomUUID();
      const after = {
        id,
        layerId: layers[0]!.id,
        position: version,
        enabled: true,
        site: { kind: 'dab', at: [20 + 10 * version, 300] },
        width: 12,
        softness: 0,
        flow: 1,
        strength: 1,
        method: { kind: 'clone', donor: { dx: 0, dy: 30 } },
        reason: '',
        createdAt: new Date().toISOString(),
      };
      await post(`/api/pictures/${picture.id}/changes`, {
        version,
        label: 'Clone a dab',
        edits: [{ entity: 'repair', id, after }],
      });
      await server.kill();
      made.push(id);
      await server.start();
      const records = await read();
      expect(records.picture.version).toBe(version + 1);
      expect(records.repairs.map((r) => r.id).sort()).toEqual([...made].sort());
    }
  } finally {
    await server.dispose();
  }
});
