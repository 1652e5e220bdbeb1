import type { Layer, PictureRecords, Repair, View } from '@tersum/document';
import { plainFill } from '@tersum/document';

/** Records as the server tells them, for tests of what the bench makes of them. */

export const idOf = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;

export const layerOf = (n: number, more: Partial<Layer> = {}): Layer => ({
  id: idOf(n),
  name: 'Repairs',
  visible: true,
  position: n,
  ...more,
});

/** A filled dab. */
export const repairOf = (n: number, more: Partial<Repair> = {}): Repair => ({
  id: idOf(n),
  layerId: idOf(900),
  position: n,
  enabled: true,
  site: { kind: 'dab', at: [50, 50] },
  width: 30,
  softness: 0,
  flow: 1,
  strength: 1,
  method: plainFill(idOf(500 + n)),
  reason: '',
  createdAt: '2026-11-02T09:00:00.000Z',
  ...more,
});

export function recordsOf(
  repairs: readonly Repair[],
  { version = 1, layers = [layerOf(900)] }: { version?: number; layers?: Layer[] } = {},
): PictureRecords {
  return {
    picture: {
      id: idOf(1),
      jobId: idOf(2),
      name: 'Quay.png',
      original: 'a'.repeat(64),
      format: 'png',
      width: 300,
      height: 200,
      channels: 3,
      bits: 8,
      ppi: null,
      profile: null,
      version,
      addedAt: '2026-11-02T09:00:00.000Z',
    },
    jobTitle: 'Quay',
    layers,
    repairs: [...repairs],
    preparations: [],
    tones: [],
    frames: [],
    undo: null,
    redo: null,
    savedAt: null,
  } as PictureRecords;
}

export const viewOf = (version: number): View => ({
  version,
  base: 'original',
  canvas: { x: 0, y: 0, width: 300, height: 200 },
  tiles: {},
  donorChanged: [],
  failed: {},
  unsure: {},
});
