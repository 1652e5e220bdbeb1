import type { Levels, Raster, ToneAct } from '@tersum/core';
import {
  actsOf,
  autoTone,
  CLIP_SHARE,
  colourChannels,
  histogramOf,
  levelsFor,
  NO_LEVELS,
  plainStep,
  toned,
  whiteOf,
} from '@tersum/core';
import { Meter, readPicture, writePicture, writeReport } from './files.js';
import { BadUsage, needed, numberOf, readArguments } from './usage.js';

const OPTIONS = {
  out: { type: 'string' },
  auto: { type: 'boolean' },
  clip: { type: 'string' },
  channel: { type: 'string' },
  threads: { type: 'string' },
  seed: { type: 'string' },
  json: { type: 'string' },
} as const;

const CHANNELS = ['r', 'g', 'b', 'all', 'auto'] as const;

/** `tersum level`: black and white points by a share that may clip, or with --auto everything that undoes fading. */
export async function levelCommand(args: string[]): Promise<void> {
  const { input, values } = readArguments(args, OPTIONS);
  const out = needed(values.out, 'out');
  const clip = numberOf(values.clip, 'clip', 0, 20, CLIP_SHARE * 100) / 100;
  const channel = CHANNELS.find((c) => c === (values.channel ?? 'all'));
  if (!channel) throw new BadUsage(`--channel takes auto, r, g, b or all, not '${values.channel}'`);
  const meter = new Meter();
  const { raster: picture, ppi } = await meter.time('load', () => readPicture(input));
  const { acts, result } = await meter.time('engine', () => {
    const acts = values.auto
      ? actsOf(autoTone(picture, clip))
      : [levelsAct(picture, channel, clip)];
    return { acts, result: toned(picture, acts.map(plainStep)) };
  });
  await meter.time('save', () => writePicture(out, result, input, ppi));
  await writeReport(values.json, { command: 'level', acts, ...meter.report() });
}

/** One range for all channels, or one channel's own. */
function levelsAct(picture: Raster, channel: (typeof CHANNELS)[number], clip: number): ToneAct {
  const { data, channels } = picture;
  const white = whiteOf(data);
  const colours = colourChannels(channels);
  const ofChannel = (c: number) =>
    levelsFor(histogramOf(data, 4096, Math.min(c, colours - 1), channels, white), clip);
  const plain: [Levels, Levels, Levels] = [NO_LEVELS, NO_LEVELS, NO_LEVELS];
  if (channel === 'auto')
    return { kind: 'levels', all: NO_LEVELS, channels: [ofChannel(0), ofChannel(1), ofChannel(2)] };
  if (channel !== 'all') {
    const at = CHANNELS.indexOf(channel);
    return {
      kind: 'levels',
      all: NO_LEVELS,
      channels: plain.map((l, c) => (c === at ? ofChannel(c) : l)) as typeof plain,
    };
  }
  const each = Array.from({ length: colours }, (_, c) => ofChannel(c));
  const black = Math.min(...each.map((l) => l.black));
  const most = Math.max(...each.map((l) => l.white));
  return { kind: 'levels', all: { black, white: most, gamma: 1 }, channels: plain };
}
