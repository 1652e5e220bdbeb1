import { levelPicture, tiltOf } from '@tersum/core';
import { Meter, readPicture, writePicture, writeReport } from './files.js';
import { numberOf, readArguments } from './usage.js';

const OPTIONS = {
  out: { type: 'string' },
  angle: { type: 'string' },
  threads: { type: 'string' },
  seed: { type: 'string' },
  json: { type: 'string' },
} as const;

/** Standing out less than this, a tilt is told with a warning. */
const CLEAR = 2;

/** `tersum straighten`: turns a picture back by the tilt of its level and plumb lines, or by a given angle. */
export async function straightenCommand(args: string[]): Promise<void> {
  const { input, values } = readArguments(args, OPTIONS);
  const given = values.angle === undefined ? null : numberOf(values.angle, 'angle', -45, 45, 0);
  const meter = new Meter();
  const { raster: picture, ppi } = await meter.time('load', () => readPicture(input));
  const { angle, clearness, result } = await meter.time('engine', () => {
    const tilt = given === null ? tiltOf(picture) : { angle: given, clearness: null };
    return { ...tilt, result: values.out ? levelPicture(picture, tilt.angle) : null };
  });
  if (clearness !== null && clearness < CLEAR)
    process.stderr.write(
      'tersum: hardly anything in the picture is level or plumb; look at the result\n',
    );
  const { out } = values;
  if (out && result) await meter.time('save', () => writePicture(out, result, input, ppi));
  const size = result && { width: result.width, height: result.height };
  await writeReport(values.json, {
    command: 'straighten',
    angle_ccw_deg: angle,
    clearness,
    size,
    ...meter.report(),
  });
}
