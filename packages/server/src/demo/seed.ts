import { copyFile } from 'node:fs/promises';
import { join } from 'node:path';
import { randomUUID } from 'node:crypto';
import { scenario } from '@tersum/demo';
import type { Services } from '../services.js';

/** Fills an empty job board with the made-up jobs of Marrow Quay; does nothing when there are jobs. */
export async function seedDemo(services: Services, photos: string): Promise<void> {
  const { jobs, records, intake, folders } = services;
  if (!jobs.isEmpty()) return;
  for (const planned of scenario(new Date())) {
    const job = jobs.create(planned.draft);
    for (const picture of planned.pictures) {
      const copy = join(folders.incoming, randomUUID());
      await copyFile(join(photos, picture.file), copy);
      const { id } = await intake.take(job.id, copy, picture.name);
      for (const step of picture.steps(records.records(id).layers[0]!.id))
        records.change(id, { ...step, version: records.picture(id).version });
    }
  }
}
