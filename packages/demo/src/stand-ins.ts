import type { Raster } from '@tersum/core';
import { copyShots, frames } from './camera.js';
import { PRINT_PPI, scanned } from './scanner.js';
import type { ScanOrder } from './scanner.js';

/** Made-up prints that lie ready for the simulated scanner and the copy stand. */
export const PRINTS = {
  regatta: { name: 'Regatta print, black and white', file: 'quay-print-truth.jpg' },
  garden: { name: 'Allotment print, colour', file: 'mesh-truth.jpg' },
  steps: { name: 'Nettle Steps print, colour', file: 'wires-truth-no-wires.jpg' },
} as const;
export type PrintName = keyof typeof PRINTS;

/** The view before the simulated camera. */
export const VIEW = { name: 'Beach huts', file: 'huts-wide.jpg', across: 104 } as const;

/** What one of the simulated devices is asked for. */
export type StandInOrder =
  | ({ readonly device: 'scanner'; readonly print: PrintName } & Omit<ScanOrder, 'seed'>)
  | { readonly device: 'stand'; readonly print: PrintName; readonly shots: number }
  | { readonly device: 'camera'; readonly shots: number };

/** A picture a simulated device delivers. */
export interface Delivered {
  readonly name: string;
  readonly picture: Raster;
  readonly ppi: number | null;
}

/** Which file of the photos folder an order needs. */
export function fileFor(order: StandInOrder): string {
  return order.device === 'camera' ? VIEW.file : PRINTS[order.print].file;
}

/** Delivers what was ordered. @param source the decoded file of {@link fileFor} */
export function delivered(order: StandInOrder, source: Raster, seed = 7): Delivered[] {
  switch (order.device) {
    case 'scanner': {
      const name = `Simulated scan, ${PRINTS[order.print].name.split(',')[0]}, ${order.ppi} ppi.tif`;
      return [{ name, picture: scanned(source, { ...order, seed }), ppi: order.ppi }];
    }
    case 'stand':
      return copyShots(source, order.shots, seed).map((picture, k) => ({
        name: `Simulated copy ${k + 1} of ${order.shots}.tif`,
        picture,
        ppi: PRINT_PPI / 2,
      }));
    case 'camera':
      return frames(source, VIEW.across, order.shots, seed).map((picture, k) => ({
        name: `Simulated frame ${k + 1} of ${order.shots}.tif`,
        picture,
        ppi: null,
      }));
  }
}
