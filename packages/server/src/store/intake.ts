import type { Picture } from '@tersum/document';
import type { WorkPool } from '../pool/pool.js';
import type { Originals } from '../render/originals.js';
import type { ContentStore } from './files.js';
import type { JobStore } from './jobs.js';

/** Takes picture files into jobs: read wholly first, stored only when they are sound. */
export class Intake {
  constructor(
    private readonly jobs: JobStore,
    private readonly files: ContentStore,
    private readonly originals: Originals,
    private readonly pool: WorkPool,
  ) {}

  /**
   * @param file a file of ours to move in; left where it is when it cannot be used
   * @throws UserProblem with a sentence for the person
   */
  async take(jobId: string, file: string, name: string): Promise<Picture> {
    this.jobs.get(jobId);
    const opened = await this.pool.run({ kind: 'open', path: file });
    const original = await this.files.adopt(file);
    this.originals.keep(original, opened);
    const { raster, format, bits, ppi, profile } = opened;
    return this.jobs.addPicture({
      jobId,
      name: name.slice(0, 200) || 'picture',
      original,
      format,
      width: raster.width,
      height: raster.height,
      channels: raster.channels,
      bits,
      ppi,
      profile,
    });
  }
}
