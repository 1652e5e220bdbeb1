import { decode, encode, readMetadata, UserProblem } from '@tersum/codec';
import type { Raster, Task } from '@tersum/core';
import {
  CannotLay,
  convertRaster,
  crop,
  depthOf,
  frameOf,
  fullRect,
  holeFilled,
  join,
  NothingInCommon,
  portionOf,
  unglare,
} from '@tersum/core';
import type { Crew } from '@tersum/core';
import { delivered } from '@tersum/demo';
import type { Making } from '@tersum/document';
import { compose } from '@tersum/document';
import { writeFile } from 'node:fs/promises';
import type { Made, MakeTask, MakeSource } from './tasks.js';

/** What is made, before it becomes a file. */
interface Picture {
  readonly name: string;
  readonly picture: Raster;
  readonly ppi: number | null;
  /** File whose profile and camera data it takes over. */
  readonly like: string | null;
}

/** Makes new pictures and writes them as files. @throws UserProblem, Cancelled */
export async function makePictures(task: MakeTask, crew: Crew, watch: Task): Promise<Made[]> {
  const pictures = await explained(() => picturesOf(task, crew, watch));
  const made: Made[] = [];
  for (const [k, { name, picture, ppi, like }] of pictures.entries()) {
    const path = `${task.stem}-${k}`;
    const { icc, exif } = like ? await readMetadata(like) : {};
    const file = await encode(picture, 'tiff', 100, { icc: icc ?? null, exif: exif ?? null, ppi });
    await writeFile(path, file, { flush: true });
    made.push({ path, name });
  }
  return made;
}

/** Tells what the engine refuses in a sentence for the person. */
async function explained<T>(act: () => Promise<T>): Promise<T> {
  try {
    return await act();
  } catch (error) {
    if (error instanceof NothingInCommon || error instanceof CannotLay)
      throw new UserProblem(422, sentence(error.message));
    throw error;
  }
}

function sentence(text: string): string {
  return `${text.charAt(0).toUpperCase()}${text.slice(1)}.`;
}

async function picturesOf(
  { making, sources, photo }: MakeTask,
  crew: Crew,
  watch: Task,
): Promise<Picture[]> {
  if (making.kind === 'simulated') {
    const { raster } = await decode(photo!);
    return delivered(making.order, raster).map((d) => ({ ...d, like: null }));
  }
  const first = sources[0]!;
  const shown = sources.map(({ original, patches }) =>
    compose(original, patches, frameOf(original)),
  );
  const stem = first.name.replace(/\.[^.]*$/, '');
  const made = (word: string, picture: Raster): Picture[] => [
    { name: `${stem}, ${word}.tif`, picture, ppi: first.ppi, like: first.path },
  ];
  switch (making.kind) {
    case 'join':
      return made('joined', joinedOf(making, shown, sources, crew, watch));
    case 'unglare': {
      const { channels, data } = shown[0]!;
      const { picture, maps } = unglare(
        shown.map((s) => convertRaster(s, channels, depthOf(data))),
        watch,
      );
      refuseStrangers(
        maps.flatMap((m, k) => (m ? [] : [k])),
        sources,
        'is not of the same print as the first',
      );
      return made('without reflections', picture);
    }
  }
}

function joinedOf(
  { projection, edges }: Extract<Making, { kind: 'join' }>,
  shown: readonly Raster[],
  sources: readonly MakeSource[],
  crew: Crew,
  watch: Task,
): Raster {
  const joined = join(shown, { projection }, portionOf(watch, 0, edges === 'fill' ? 0.5 : 1));
  refuseStrangers(joined.unused, sources, 'shows nothing that the others show');
  const { picture, covered } = joined;
  if (edges === 'crop') return crop(picture, fullRect(covered, picture.width));
  if (edges === 'leave') return picture;
  const bare = covered.map((c) => 1 - c);
  return holeFilled(picture, bare, new Uint8Array(bare.length), { crew }, portionOf(watch, 0.5, 1));
}

function refuseStrangers(
  strangers: readonly number[],
  sources: readonly MakeSource[],
  why: string,
): void {
  if (!strangers.length) return;
  const names = strangers.map((k) => `“${sources[k]!.name}”`).join(' and ');
  throw new UserProblem(422, `${names} ${why}. Leave it out and try again.`);
}
