import type { Raster } from '@tersum/core';
import { createRaster } from '@tersum/core';
import type { Method, Repair } from '@tersum/document';
import { plainFill, replay, searchDonorMap, shiftDonor } from '@tersum/document';

const SIDE = 160;
const NO_SEARCH = '00000000-0000-4000-8000-000000000000';
const ROUNDS = 12;

/** Mends nothing much a few times over, so that the engine has compiled what every repair runs. */
export function warmUp(): void {
  const blank = createRaster(SIDE, SIDE, 3);
  blank.data.forEach((_, i) => (blank.data[i] = (i * 7919) & 255));
  const copied = { donor: shiftDonor(30, 20), other: null };
  const over = { map: null, original: blank, below: [], elsewhere: {} };
  for (let round = 0; round < ROUNDS; round++) {
    replay({ ...over, repair: strokeOf({ kind: 'clone', ...copied }, round) });
    replay({ ...over, repair: strokeOf({ kind: 'graft', ...copied }, round) });
    if (round % 4 === 0) fillOnce(blank, round);
  }
}

function fillOnce(blank: Raster, round: number): void {
  const repair = strokeOf(plainFill(NO_SEARCH), round);
  const around = { below: [], others: [], later: [], damage: [] };
  const map = searchDonorMap({ repair, original: blank, ...around });
  replay({ repair, map, original: blank, below: [], elsewhere: {} });
}

function strokeOf(method: Method, round: number): Repair {
  return {
    id: '',
    layerId: '',
    position: 0,
    enabled: true,
    site: {
      kind: 'stroke',
      points: [
        [20, 30 + round],
        [60, 50],
        [110, 60 + round],
      ],
    },
    width: 24,
    softness: 0.3,
    flow: 1,
    strength: 1,
    method,
    reason: '',
    createdAt: '',
  };
}
