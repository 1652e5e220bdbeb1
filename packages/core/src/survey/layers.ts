import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import type { Plane } from './plane.js';
import { greyPlane, halved } from './plane.js';

/** One level of a picture: grey, and its three colours when it has any; 0..255. */
export interface Layer {
  readonly grey: Plane;
  readonly colours: readonly Plane[];
}

/** A picture and its halvings, finest first. @param levels how many */
export function layersOf(picture: Raster, levels: number): Layer[] {
  const { width, height, channels, data } = picture;
  const scale = 255 / whiteOf(data);
  const colours =
    colourChannels(channels) < 3
      ? []
      : [0, 1, 2].map((c): Plane => {
          const values = new Float32Array(width * height);
          for (let p = 0, i = c; p < values.length; p++, i += channels)
            values[p] = data[i]! * scale;
          return { width, height, values };
        });
  const layers: Layer[] = [{ grey: greyPlane(picture), colours }];
  while (layers.length < levels) {
    const { grey, colours: finer } = layers.at(-1)!;
    if (Math.min(grey.width, grey.height) < 32) break;
    layers.push({ grey: halved(grey), colours: finer.map(halved) });
  }
  return layers;
}
