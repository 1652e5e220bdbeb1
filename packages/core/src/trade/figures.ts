/** Arithmetic of the trade that people otherwise do in their heads. */

/** Share covered after passes of a flow: 1 - (1 - f)^n. @param flow 0..1 */
export function coverAfter(passes: number, flow: number): number {
  return 1 - (1 - flow) ** passes;
}

/** Passes of a flow that cover at least a share. @param flow 0..1, > 0 @param share 0..1, < 1 */
export function passesFor(share: number, flow: number): number {
  return flow >= 1 ? 1 : Math.max(1, Math.ceil(Math.log(1 - share) / Math.log(1 - flow) - 1e-9));
}

/**
 * Straight runs that follow a bow: n runs leave s / n^2 of its sagitta s, so n >= sqrt(s / allowed).
 * @param sagitta px @param allowed px that a run may lie off the line, > 0
 */
export function runsFor(sagitta: number, allowed: number): number {
  return Math.max(1, Math.ceil(Math.sqrt(sagitta / allowed) - 1e-9));
}

/** Radius of the cylinder for a hand-held sweep, px: the focal length in px. All lengths > 0. */
export function cylinderRadius(focal: number, sensorWidth: number, imageWidth: number): number {
  return (focal / sensorWidth) * imageWidth;
}

/** Angle of view across a frame, degrees. @param focal @param sensorWidth mm, > 0 */
export function viewAngle(focal: number, sensorWidth: number): number {
  return (360 / Math.PI) * Math.atan(sensorWidth / (2 * focal));
}

/**
 * Frames that cover an angle when each overlaps the one before by a share of itself.
 * @param view angle of view of one frame, degrees @param overlap 0..1, < 1
 */
export function framesFor(angle: number, view: number, overlap: number): number {
  return angle <= view ? 1 : 1 + Math.ceil((angle - view) / (view * (1 - overlap)) - 1e-9);
}

/** Feather of a soft selection for a change of tone: 3.5 to 4 % of the long side (common practice). */
export function feather(longSide: number, share = 0.0375): number {
  return longSide * share;
}
