import { randomUUID } from 'node:crypto';
import { open, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { LaidLayer } from '@tersum/codec';
import { isOpenRaster } from '@tersum/codec';
import type { Edit, Picture, Repair } from '@tersum/document';
import { shiftDonor } from '@tersum/document';
import type { WorkPool } from '../pool/pool.js';
import type { Intake } from './intake.js';
import type { RecordStore } from './records.js';

/** Bytes at a file's beginning that tell a layered one. */
const HEAD = 64;
/** Outlines that one repair may have. */
const MOST_OUTLINES = 1500;
const LONGEST_NAME = 80;

/** Takes picture files into jobs; layers of layered ones become repair layers, copied from a sheet that lies beside it. */
export class LayeredIntake {
  constructor(
    private readonly intake: Intake,
    private readonly records: RecordStore,
    private readonly pool: WorkPool,
    private readonly folder: string,
  ) {}

  /** @throws UserProblem with a sentence for the person */
  async take(jobId: string, file: string, name: string): Promise<Picture> {
    if (!isOpenRaster(await headOf(file))) return this.intake.take(jobId, file, name);
    const [base, sheet] = [join(this.folder, randomUUID()), join(this.folder, randomUUID())];
    try {
      const { layers } = await this.pool.run({ kind: 'layers', path: file, base, sheet });
      const plain = name.replace(/\.ora$/i, '');
      const picture = await this.intake.take(jobId, base, `${plain}.png`);
      if (!layers.length) return picture;
      const beside = await this.intake.take(jobId, sheet, `${plain}, layers.png`);
      const edits = layers.flatMap((layer, k) => editsFor(layer, k, name, beside.id));
      return this.records.change(picture.id, {
        version: picture.version,
        label: 'Read layers',
        edits,
      }).picture;
    } finally {
      await Promise.all([base, sheet].map((path) => rm(path, { force: true })));
    }
  }
}

/** The records of one layer. */
function editsFor(
  { name, visible, outlines, shift }: LaidLayer,
  position: number,
  file: string,
  sheet: string,
): Edit[] {
  const layerId = randomUUID();
  const layer = {
    id: layerId,
    name: name.trim().slice(0, LONGEST_NAME) || `Layer ${position + 1}`,
    visible,
    position,
  };
  const repairs: Repair[] = [];
  for (let from = 0; from < outlines.length; from += MOST_OUTLINES)
    repairs.push({
      id: randomUUID(),
      layerId,
      position: repairs.length,
      enabled: true,
      site: {
        kind: 'parts',
        parts: outlines.slice(from, from + MOST_OUTLINES).map((points) => ({
          shape: { kind: 'outline' as const, points: points.map(([x, y]) => [x, y]) },
          width: 1,
        })),
      },
      width: 1,
      softness: 0,
      flow: 1,
      strength: 1,
      method: { kind: 'clone', donor: { ...shiftDonor(...shift), picture: sheet }, other: null },
      reason: `Read from ${file}`.slice(0, 400),
      createdAt: new Date().toISOString(),
    });
  return [
    { entity: 'layer', id: layerId, after: layer },
    ...repairs.map((after): Edit => ({ entity: 'repair', id: after.id, after })),
  ];
}

async function headOf(file: string): Promise<Uint8Array> {
  const handle = await open(file);
  try {
    const { buffer, bytesRead } = await handle.read(new Uint8Array(HEAD), 0, HEAD, 0);
    return buffer.subarray(0, bytesRead);
  } finally {
    await handle.close();
  }
}
