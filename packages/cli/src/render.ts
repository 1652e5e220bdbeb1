import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createRaster, depthOf, frameOf, prepare, unpackDonorMap } from '@tersum/core';
import type { Preparation, Raster } from '@tersum/core';
import type { Bundle, FoundMap } from '@tersum/document';
import { baseName, BUNDLE, BundleSchema, finished, replay, walk } from '@tersum/document';
import { inflateSync, unzipSync } from 'fflate';
import { Meter, readPicture, writePicture, writeReport } from './files.js';
import { BadUsage, needed, readArguments } from './usage.js';

const OPTIONS = {
  out: { type: 'string' },
  threads: { type: 'string' },
  seed: { type: 'string' },
  json: { type: 'string' },
} as const;

type Files = Record<string, Uint8Array>;

/** `tersum render`: a delivered job, rendered again to the same samples: repairs, tone steps, frame. */
export async function renderCommand(args: string[]): Promise<void> {
  const { input, values } = readArguments(args, OPTIONS);
  const out = needed(values.out, 'out');
  const meter = new Meter();
  const folder = await mkdtemp(join(tmpdir(), 'tersum-'));
  try {
    const { bundle, files, source, received, ppi, elsewhere } = await meter.time(
      'load',
      async () => {
        const files = await unzipped(input);
        const bundle = bundleIn(files);
        const source = await unpack(files, bundle.picture.original, folder);
        const { raster, ppi } = await readPicture(source);
        const elsewhere: Record<string, Raster> = {};
        for (const [id, hash] of Object.entries(bundle.elsewhere))
          elsewhere[id] = prepared(
            (await readPicture(await unpack(files, hash, folder))).raster,
            bundle.elsewherePrepared[id],
          );
        return { bundle, files, source, received: raster, ppi, elsewhere };
      },
    );
    const { result, failed } = await meter.time('engine', async () => {
      const patches = new Map<string, ReturnType<typeof replay>>();
      const found = (search: string): Promise<FoundMap | undefined> =>
        Promise.resolve(mapIn(bundle, files, search));
      const [preparation] = bundle.preparations;
      const original = prepared(received, preparation);
      const base = baseName(bundle.picture.original, preparation);
      const rendering = await walk(bundle, base, frameOf(original), {
        patch: (key, repair, map, below) => {
          const known = patches.get(key) ?? replay({ repair, map, original, below, elsewhere });
          patches.set(key, known);
          return Promise.resolve(known);
        },
        found,
        search: () => Promise.reject(new BadUsage('a fill in this job had not been searched yet')),
        keepFound: () => Promise.reject(new BadUsage('nothing is searched here')),
      });
      const laid = rendering.rendered.map((r) => r.patch);
      return { result: finished(original, laid, bundle), failed: rendering.failed };
    });
    for (const { message } of failed)
      process.stderr.write(`tersum: a repair was left out: ${message}\n`);
    await meter.time('save', () => writePicture(out, result, source, ppi));
    await writeReport(values.json, {
      command: 'render',
      repairs: bundle.repairs.length,
      failed: failed.length,
      ...meter.report(),
    });
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** What repairs begin from. */
function prepared(received: Raster, how: Preparation | undefined): Raster {
  if (!how) return received;
  const { width, height, channels, data } = received;
  const into = createRaster(width, height, channels, depthOf(data));
  prepare(received, how, into);
  return into;
}

async function unzipped(path: string): Promise<Files> {
  const bytes = await readFile(path).catch(() => {
    throw new BadUsage(`there is no file '${path}'`);
  });
  try {
    return unzipSync(bytes);
  } catch {
    throw new BadUsage(`'${path}' is not a zip file, or it is damaged`);
  }
}

function bundleIn(files: Files): Bundle {
  const text = files[BUNDLE.job];
  if (!text) throw new BadUsage(`this zip holds no ${BUNDLE.job}: it is not a delivered job`);
  const bundle = BundleSchema.safeParse(parsed(text));
  if (!bundle.success)
    throw new BadUsage(
      `${BUNDLE.job} cannot be read: ${bundle.error.issues[0]?.message ?? 'unknown form'}`,
    );
  return bundle.data;
}

function parsed(text: Uint8Array): unknown {
  try {
    return JSON.parse(Buffer.from(text).toString());
  } catch {
    throw new BadUsage(`${BUNDLE.job} cannot be read: it is not JSON`);
  }
}

async function unpack(files: Files, hash: string, folder: string): Promise<string> {
  const bytes = files[BUNDLE.original(hash)];
  if (!bytes) throw new BadUsage('an original is missing from this job');
  const path = join(folder, hash);
  await writeFile(path, bytes);
  return path;
}

function mapIn(bundle: Bundle, files: Files, search: string): FoundMap | undefined {
  const entry = bundle.searches[search];
  const bytes = entry && files[BUNDLE.map(entry.map)];
  return bytes && { map: unpackDonorMap(inflateSync(bytes)), hash: entry.map, below: entry.below };
}
