/** One frame laid on a coarse canvas. */
export interface Laid {
  /** 0..255, its channels one after another in planes. */
  readonly planes: readonly Float32Array[];
  readonly valid: Uint8Array;
}

const STEPS = 48;
/** No frame. */
export const NOBODY = 255;

/**
 * Which frame each place is taken from. Places that one frame alone shows are its own; from there every frame floods what it
 * shows too, first where the frames differ, so that the fronts meet where they are alike (after Gracias et al., "Fast Image
 * Blending using Watersheds and Graph Cuts", Image and Vision Computing 27(5), 2009).
 * @returns the frame's number a pixel, NOBODY where none has any
 */
export function seamsBetween(
  frames: readonly (Laid | null)[],
  width: number,
  height: number,
): Uint8Array {
  const labels = new Uint8Array(width * height).fill(NOBODY);
  const count = new Uint8Array(width * height);
  for (const frame of frames)
    if (frame) for (let p = 0; p < count.length; p++) count[p]! += frame.valid[p]!;
  const altitude = altitudes(frames, count, width, height);
  const queues = Array.from({ length: STEPS }, (): number[] => []);
  const heads = new Int32Array(STEPS);
  let level = 0;
  const push = (p: number, label: number): void => {
    labels[p] = label;
    queues[altitude[p]!]!.push(p);
    if (altitude[p]! < level) level = altitude[p]!;
  };
  frames.forEach((frame, label) => {
    if (!frame) return;
    for (let p = 0; p < labels.length; p++) if (count[p] === 1 && frame.valid[p]) push(p, label);
  });
  // What differs most is gone on from at once, so that the front that meets it first has all of it.
  const flood = (): void => {
    for (level = 0; level < STEPS;) {
      const at = heads[level]!++;
      if (at >= queues[level]!.length) {
        heads[level] = 0;
        queues[level++]!.length = 0;
        continue;
      }
      const p = queues[level]![at]!;
      const label = labels[p]!;
      const { valid } = frames[label]!;
      const x = p % width;
      for (const q of [x > 0 ? p - 1 : -1, x < width - 1 ? p + 1 : -1, p - width, p + width])
        if (q >= 0 && q < labels.length && labels[q] === NOBODY && valid[q]) push(q, label);
    }
  };
  flood();
  // Places that no front could reach, such as a frame inside another: the first that shows them begins there.
  for (let p = 0; p < labels.length; p++)
    if (labels[p] === NOBODY && count[p]) {
      push(
        p,
        frames.findIndex((f) => f?.valid[p]),
      );
      flood();
    }
  return labels;
}

/** 0 where frames differ most .. STEPS - 1 where they are alike. */
function altitudes(
  frames: readonly (Laid | null)[],
  count: Uint8Array,
  width: number,
  height: number,
): Uint8Array {
  const differ = new Float32Array(count.length);
  const laid = frames.filter((f) => f !== null);
  for (let i = 0; i < laid.length; i++)
    for (let j = i + 1; j < laid.length; j++) {
      const [a, b] = [laid[i]!, laid[j]!];
      for (let p = 0; p < differ.length; p++) {
        if (!a.valid[p] || !b.valid[p]) continue;
        let d = 0;
        for (let c = 0; c < a.planes.length; c++)
          d = Math.max(d, Math.abs(a.planes[c]![p]! - b.planes[c]![p]!));
        if (d > differ[p]!) differ[p] = d;
      }
    }
  const out = new Uint8Array(count.length);
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++) {
      // A place counts with its neighbours, so that a front does not slip through between two that differ.
      let d = differ[p]!;
      if (x > 0) d = Math.max(d, 0.7 * differ[p - 1]!);
      if (x < width - 1) d = Math.max(d, 0.7 * differ[p + 1]!);
      if (y > 0) d = Math.max(d, 0.7 * differ[p - width]!);
      if (y < height - 1) d = Math.max(d, 0.7 * differ[p + width]!);
      out[p] = Math.round((STEPS - 1) / (1 + d / 12));
    }
  return out;
}
