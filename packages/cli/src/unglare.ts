import { convertRaster, depthOf, unglare } from '@tersum/core';
import { Meter, readPicture, writePicture, writeReport } from './files.js';
import { BadUsage, needed, readMany } from './usage.js';

const OPTIONS = {
  out: { type: 'string' },
  threads: { type: 'string' },
  seed: { type: 'string' },
  json: { type: 'string' },
} as const;

/** `tersum unglare`: photographs of one print, lit from different places, as one without reflections. */
export async function unglareCommand(args: string[]): Promise<void> {
  const { inputs, values } = readMany(args, OPTIONS);
  const out = needed(values.out, 'out');
  if (inputs.length < 2 || inputs.length > 5)
    throw new BadUsage('name two to five photographs of the same print');
  const meter = new Meter();
  const shots = await meter.time('load', async () => {
    const read = [];
    for (const path of inputs) read.push(await readPicture(path));
    return read;
  });
  const { channels, data } = shots[0]!.raster;
  const done = await meter.time('engine', () =>
    unglare(shots.map((s) => convertRaster(s.raster, channels, depthOf(data)))),
  );
  const unused = done.maps.flatMap((map, k) => (map ? [] : [inputs[k]!]));
  if (unused.length === inputs.length - 1)
    throw new BadUsage('these photographs show too little in common to be laid over each other');
  for (const path of unused)
    process.stderr.write(`tersum: '${path}' shows something else and was left out\n`);
  await meter.time('save', () => writePicture(out, done.picture, inputs[0]!, shots[0]!.ppi));
  await writeReport(values.json, {
    command: 'unglare',
    H_to_shot0: done.maps.map((m) => m && [m.slice(0, 3), m.slice(3, 6), m.slice(6, 9)]),
    unused,
    replaced: done.replaced,
    ...meter.report(),
  });
}
