import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { ChangeSchema, JobDraftSchema } from '@tersum/document';
import { fixedId } from './ids.js';
import { scenario } from './scenario.js';

describe('the made-up jobs', () => {
  const jobs = scenario(new Date('2026-11-24T00:00:00Z'));

  test('are valid, due in the future, and their pictures are there', () => {
    expect(jobs).toHaveLength(5);
    for (const { draft, pictures } of jobs) {
      JobDraftSchema.parse(draft);
      expect(draft.due! > '2026-11-24').toBe(true);
      for (const { file } of pictures)
        expect(existsSync(join(__dirname, '..', 'photos', file))).toBe(true);
    }
  });

  test('their repairs are valid changes', () => {
    const changes = jobs.flatMap((j) => j.pictures.flatMap((p) => p.steps(fixedId('layer'))));
    expect(changes.length).toBeGreaterThan(8);
    changes.forEach((change, version) => ChangeSchema.parse({ ...change, version }));
  });
});
