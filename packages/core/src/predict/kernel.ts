/** Functions of kernels/predict.ts. Addresses in bytes. */
export interface PredictKernel {
  filters(
    grey: number,
    sound: number,
    across: number,
    down: number,
    side: number,
    wanted: number,
    offsets: number,
    count: number,
    leastTold: number,
    ridge: number,
    told: number,
    cells: number,
    m: number,
    work: number,
    taps: number,
  ): number;
  settle(
    values: number,
    rest: number,
    way: number,
    answer: number,
    missed: number,
    stretches: number,
    stretchCount: number,
    offsets: number,
    count: number,
    runs: number,
    runCount: number,
    rounds: number,
    tolerance: number,
    work: number,
  ): void;
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
  greyAndSound(
    values: number,
    unknown: number,
    width: number,
    height: number,
    stride: number,
    reach: number,
    offsets: number,
    count: number,
    cells: number,
    grey: number,
    sound: number,
  ): void;
  /** @returns how many stretches */
  stretches(
    unknown: number,
    touched: number,
    width: number,
    height: number,
    stride: number,
    reach: number,
    side: number,
    offsets: number,
    count: number,
    cells: number,
    taps: number,
    wanted: number,
    out: number,
  ): number;
  /** @returns how many runs */
  runs(unknown: number, stride: number, cells: number, out: number): number;
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
