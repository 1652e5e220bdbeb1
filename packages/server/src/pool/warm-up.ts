import type { Crew, Raster } from '@tersum/core';
import { createRaster } from '@tersum/core';
import type { Method, Repair } from '@tersum/document';
import { plainFill, replay, searchDonorMap, shiftDonor } from '@tersum/document';
import type { WorkerSetup } from './tasks.js';

const SIDE = 160;
const NO_SEARCH = '00000000-0000-4000-8000-000000000000';
const ROUNDS = 8;
const SEARCHES = 3;

/** Mends nothing much a few times over, so that the engine has compiled what every repair, or every search, runs. */
export function warmUp(what: NonNullable<WorkerSetup['warm']>, crew: () => Crew): void {
  const blank = createRaster(SIDE, SIDE, 3);
  blank.data.forEach((_, i) => (blank.data[i] = (i * 7919) & 255));
  if (what === 'searches') {
    for (let round = 0; round < SEARCHES; round++) fillOnce(blank, round, crew());
    return;
  }
  const copied = { donor: shiftDonor(30, 20), other: null };
  const over = { map: null, original: blank, below: [], elsewhere: {} };
  for (let round = 0; round < ROUNDS; round++) {
    replay({ ...over, repair: strokeOf({ kind: 'clone', ...copied }, round) });
    replay({ ...over, repair: strokeOf({ kind: 'graft', ...copied }, round) });
    if (round % 4 === 0) fillOnce(blank, round, crew());
  }
}

function fillOnce(blank: Raster, round: number, crew: Crew): void {
  const repair = strokeOf(plainFill(NO_SEARCH), round);
  const around = { below: [], others: [], later: [], damage: [] };
  const map = searchDonorMap({ repair, original: blank, ...around }, { crew });
  replay({ repair, map, original: blank, below: [], elsewhere: {} }, crew);
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
