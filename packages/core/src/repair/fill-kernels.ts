import { FILL_KERNEL } from '../fill/fill-kernel.js';
import { FIND_KERNEL } from '../find/find-kernel.js';
import { PREDICT_KERNEL } from '../predict/predict-kernel.js';
import { RASTER_KERNEL } from '../raster/raster-kernel.js';
import { SHAPE_KERNEL } from '../shape/shape-kernel.js';
import { SOLVE_KERNEL } from '../solve/solve-kernel.js';
import { compileAhead } from '../wasm/arena.js';
import { REPAIR_KERNEL } from './repair-kernel.js';

/** Compiles what a fill is searched and replayed with, while its picture is read. */
export function compileFillKernels(): Promise<void> {
  return compileAhead([
    FILL_KERNEL,
    FIND_KERNEL,
    RASTER_KERNEL,
    SHAPE_KERNEL,
    REPAIR_KERNEL,
    SOLVE_KERNEL,
    PREDICT_KERNEL,
  ]);
}
