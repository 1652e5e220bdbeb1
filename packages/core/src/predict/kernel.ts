/** Functions of kernels/predict.ts that one thread runs. Addresses in bytes. */
export interface PredictKernel {
  blank(at: number, bytes: number): void;
  steepnesses(
    values: number,
    stride: number,
    width: number,
    height: number,
    near: number,
    side: number,
    high: number,
    out: number,
  ): void;
  softness(
    values: number,
    unknown: number,
    stride: number,
    width: number,
    height: number,
    near: number,
    side: number,
    most: number,
  ): number;
  soften(
    values: number,
    runs: number,
    runCount: number,
    stride: number,
    width: number,
    height: number,
    half: number,
    out: number,
  ): void;
  strengthen(
    values: number,
    soft: number,
    runs: number,
    runCount: number,
    stride: number,
    weights: number,
    gains: number,
    side: number,
    wide: number,
    high: number,
  ): void;
  markNear(
    runs: number,
    runCount: number,
    stride: number,
    side: number,
    high: number,
    near: number,
  ): void;
  tellGains(
    near: number,
    wide: number,
    high: number,
    wanted: number,
    shown: number,
    strength: number,
    faint: number,
    most: number,
    gains: number,
  ): void;
  goOver(
    values: number,
    before: number,
    runs: number,
    runCount: number,
    stride: number,
    grid: number,
    side: number,
    wide: number,
    share: number,
    weights: number,
  ): void;
}
