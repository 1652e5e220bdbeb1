import { CannotLay, holeFilled, join, NothingInCommon } from '@tersum/core';
import type { Crew, Joined } from '@tersum/core';
import { ThreadCrew } from '@tersum/threads';
import { Meter, readPicture, writePicture, writeReport } from './files.js';
import { BadUsage, needed, numberOf, readMany, threadsOf } from './usage.js';

const OPTIONS = {
  out: { type: 'string' },
  projection: { type: 'string' },
  fill: { type: 'boolean' },
  threads: { type: 'string' },
  seed: { type: 'string' },
  json: { type: 'string' },
} as const;
const PROJECTIONS = ['auto', 'plane', 'cylinder'] as const;

/** `tersum join`: overlapping frames as one picture, its ragged edges filled when asked. */
export async function joinCommand(args: string[]): Promise<void> {
  const { inputs, values } = readMany(args, OPTIONS);
  const out = needed(values.out, 'out');
  const projection = PROJECTIONS.find((p) => p === (values.projection ?? 'auto'));
  if (!projection) throw new BadUsage(`--projection is one of ${PROJECTIONS.join(', ')}`);
  if (inputs.length < 2) throw new BadUsage('name two or more frames that overlap');
  const seed = Math.round(numberOf(values.seed, 'seed', 0, 0x7fffffff, 1));
  const crew = new ThreadCrew(threadsOf(values.threads));
  const meter = new Meter();
  try {
    const frames = await meter.time('load', async () => {
      const read = [];
      for (const path of inputs) read.push(await readPicture(path));
      return read;
    });
    const joined = await meter.time('engine', () =>
      joinedOf(
        frames.map((f) => f.raster),
        projection,
        crew,
      ),
    );
    const bare = joined.covered.map((c) => 1 - c);
    const picture = await meter.time('engine', () =>
      values.fill
        ? holeFilled(joined.picture, bare, new Uint8Array(bare.length), { seed, crew })
        : joined.picture,
    );
    for (const k of joined.unused)
      process.stderr.write(
        `tersum: '${inputs[k]}' shows nothing that the others show and was left out\n`,
      );
    await meter.time('save', () => writePicture(out, picture, inputs[0]!, frames[0]!.ppi));
    await writeReport(values.json, {
      command: 'join',
      H_to_frame0: joined.maps.map((m) => m && [m.slice(0, 3), m.slice(3, 6), m.slice(6, 9)]),
      reference_frame: joined.maps.findIndex((m) => m !== null),
      unused: joined.unused.map((k) => inputs[k]),
      projection: joined.projection,
      focal_px: joined.focal,
      exposures_ev: joined.exposures,
      size: [picture.width, picture.height],
      covered: 1 - bare.reduce((sum, v) => sum + v, 0) / bare.length,
      ...meter.report(),
    });
  } finally {
    await crew.close();
  }
}

function joinedOf(
  frames: Parameters<typeof join>[0],
  projection: (typeof PROJECTIONS)[number],
  crew: Crew,
): Joined {
  try {
    return join(frames, { projection, crew });
  } catch (error) {
    if (error instanceof NothingInCommon || error instanceof CannotLay)
      throw new BadUsage(error.message);
    throw error;
  }
}
