import type { Point } from '@tersum/core';
import { fromUpright, inverseOf, through } from '@tersum/core';
import type { Frame } from '@tersum/document';
import type { RegionPlace } from './tone-worker.js';

/** Where the painted part lies on screen, and the ways between the two. */
export interface ScreenPlace {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
  /** Screen px a full px takes. */
  readonly zoom: number;
  toPicture(screen: Point): Point;
  toScreen(picture: Point): Point;
}

interface Size {
  readonly width: number;
  readonly height: number;
}

/** Fits the painted part into the room, never larger than its own pixels. */
export function placeOf(
  room: Size,
  painted: Size,
  region: RegionPlace,
  frame: Pick<Frame, 'quad' | 'width' | 'height'> | null,
  margin: number,
): ScreenPlace {
  const fit = Math.min(
    (room.width - 2 * margin) / painted.width,
    (room.height - 2 * margin) / painted.height,
    region.scale === 1 && margin === 0 ? 1 : Infinity,
  );
  const width = painted.width * fit;
  const height = painted.height * fit;
  const left = (room.width - width) / 2;
  const top = (room.height - height) / 2;
  const zoom = fit / region.scale;
  const map = frame && fromUpright(frame.quad, frame.width, frame.height);
  const back = map && inverseOf(map);
  const origin: Point = frame ? [0, 0] : [region.x, region.y];
  return {
    left,
    top,
    width,
    height,
    zoom,
    toPicture([x, y]) {
      const p: Point = [(x - left) / zoom + origin[0] - 0.5, (y - top) / zoom + origin[1] - 0.5];
      return map ? through(map, p) : p;
    },
    toScreen(picture) {
      const [x, y] = back ? through(back, picture) : picture;
      return [left + (x + 0.5 - origin[0]) * zoom, top + (y + 0.5 - origin[1]) * zoom];
    },
  };
}
