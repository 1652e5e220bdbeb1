import type { ToneAct, ToneActOf, ToneKind } from '@tersum/core';
import { CUBE, cubeText, neutralCube, NO_LEVELS } from '@tersum/core';
import { TONE_NAMES } from '@tersum/document';

/** A number of an act that is set by a dial. */
export interface ActField {
  readonly label: string;
  readonly least: number;
  readonly most: number;
  readonly step: number;
  readonly unit: string;
  readonly hint?: string;
  readonly bent?: boolean;
  get(act: ToneAct): number;
  set(act: ToneAct, value: number): ToneAct;
}

/** What the page knows of a kind of step. */
export interface ActFacts {
  readonly name: string;
  /** What it is for, in a line. */
  readonly use: string;
  fresh(picture: { readonly width: number; readonly height: number }): ToneAct;
  readonly fields: readonly ActField[];
}

type Shown = Omit<ActField, 'get' | 'set' | 'unit' | 'step'> & {
  readonly unit?: string;
  readonly step?: number;
};

/** A field that holds `times` what is shown. */
function field<K extends ToneKind>(key: keyof ToneActOf<K>, shown: Shown, times = 1): ActField {
  return {
    unit: '',
    step: 1,
    ...shown,
    get: (act) => Number((act as ToneActOf<K>)[key]) / times,
    set: (act, value) => ({ ...act, [key]: value * times }) as ToneAct,
  };
}

const percent = { unit: '%', step: 1 } as const;

/** One of three numbers of a triple. */
function part<K extends ToneKind>(key: keyof ToneActOf<K>, at: number, label: string): ActField {
  return {
    label,
    least: -100,
    most: 100,
    step: 1,
    unit: '%',
    get: (act) => ((act as ToneActOf<K>)[key] as unknown as number[])[at]! * 100,
    set: (act, value) => {
      const triple = [...((act as ToneActOf<K>)[key] as unknown as number[])];
      triple[at] = value / 100;
      return { ...act, [key]: triple } as ToneAct;
    },
  };
}

const three = <K extends ToneKind>(key: keyof ToneActOf<K>, name: string): ActField[] => [
  part<K>(key, 0, `${name}: red`),
  part<K>(key, 1, `${name}: green`),
  part<K>(key, 2, `${name}: blue`),
];

/** All kinds of steps, in the order they are mostly worked in: tone, then sharpness, then noise, then colour. */
export const ACTS: Record<ToneKind, ActFacts> = {
  flatten: {
    name: TONE_NAMES.flatten,
    use: 'Undoes light that falls off towards the corners.',
    fresh: () => ({ kind: 'flatten', falloff: 0.2 }),
    fields: [
      field<'flatten'>('falloff', { label: 'Fall-off', least: -60, most: 80, ...percent }, 0.01),
    ],
  },
  levels: {
    name: TONE_NAMES.levels,
    use: 'Black, white and middle points.',
    fresh: () => ({ kind: 'levels', all: NO_LEVELS, channels: [NO_LEVELS, NO_LEVELS, NO_LEVELS] }),
    fields: [],
  },
  light: {
    name: TONE_NAMES.light,
    use: 'More or less light, contrast, and the white of the light.',
    fresh: () => ({ kind: 'light', exposure: 0, contrast: 0, warmth: 0, tint: 0 }),
    fields: [
      field<'light'>('exposure', {
        label: 'Exposure',
        least: -3,
        most: 3,
        step: 0.05,
        unit: 'stops',
      }),
      field<'light'>('contrast', { label: 'Contrast', least: -100, most: 100, ...percent }, 0.01),
      field<'light'>('warmth', { label: 'Cold to warm', least: -100, most: 100, ...percent }, 0.01),
      field<'light'>(
        'tint',
        { label: 'Magenta to green', least: -100, most: 100, ...percent },
        0.01,
      ),
    ],
  },
  curve: {
    name: TONE_NAMES.curve,
    use: 'Any tone to any other, smoothly.',
    fresh: () => ({
      kind: 'curve',
      channel: 'all',
      points: [
        [0, 0],
        [0.25, 0.25],
        [0.75, 0.75],
        [1, 1],
      ],
    }),
    fields: [],
  },
  balance: {
    name: TONE_NAMES.balance,
    use: 'Takes a cast out of shadows, middle or highlights.',
    fresh: () => ({
      kind: 'balance',
      shadows: [0, 0, 0],
      middle: [0, 0, 0],
      highlights: [0, 0, 0],
    }),
    fields: [
      ...three<'balance'>('shadows', 'Shadows'),
      ...three<'balance'>('middle', 'Middle'),
      ...three<'balance'>('highlights', 'Lights'),
    ],
  },
  strokes: {
    name: TONE_NAMES.strokes,
    use: 'Along strokes you draw; low strength, built up slowly.',
    fresh: () => ({ kind: 'strokes', strokes: [], stops: 0.3, softness: 0.9, between: [0, 1] }),
    fields: [
      field<'strokes'>('stops', { label: 'Light', least: -2, most: 2, step: 0.05, unit: 'stops' }),
      field<'strokes'>('softness', { label: 'Softness', least: 0, most: 100, ...percent }, 0.01),
      {
        ...between(0, 'Only tones over'),
      },
      {
        ...between(1, 'and under'),
      },
    ],
  },
  saturation: {
    name: TONE_NAMES.saturation,
    use: 'Colours nearer to or further from grey.',
    fresh: () => ({ kind: 'saturation', amount: 0.1 }),
    fields: [
      field<'saturation'>('amount', { label: 'Amount', least: -100, most: 100, ...percent }, 0.01),
    ],
  },
  grey: {
    name: TONE_NAMES.grey,
    use: 'Black and white from shares of the channels.',
    fresh: () => ({ kind: 'grey', weights: [0.3, 0.59, 0.11] }),
    fields: three<'grey'>('weights', 'Share').map((f) => ({ ...f, least: -50, most: 150 })),
  },
  toning: {
    name: TONE_NAMES.toning,
    use: 'One hue for all tones, as a print has.',
    fresh: () => ({ kind: 'toning', hue: 75, chroma: 12 }),
    fields: [
      field<'toning'>('hue', { label: 'Hue', least: 0, most: 360, unit: '°' }),
      field<'toning'>('chroma', { label: 'Depth', least: 0, most: 40, step: 0.5, unit: 'C*' }),
    ],
  },
  look: {
    name: TONE_NAMES.look,
    use: 'The colours of a lookup-table picture; at 45 to 50 % as a rule.',
    fresh: () => ({
      kind: 'look',
      name: '',
      size: CUBE,
      table: cubeText(neutralCube(CUBE)),
    }),
    fields: [],
  },
  sharpen: {
    name: TONE_NAMES.sharpen,
    use: 'Edges made steeper, held back before halos show.',
    fresh: () => ({ kind: 'sharpen', radius: 1, amount: 0.8, limit: 0.03 }),
    fields: [
      field<'sharpen'>('radius', {
        label: 'Radius',
        least: 0.3,
        most: 10,
        step: 0.1,
        unit: 'px',
        bent: true,
      }),
      field<'sharpen'>('amount', { label: 'Amount', least: 0, most: 300, ...percent }, 0.01),
      field<'sharpen'>(
        'limit',
        { label: 'Halo limit', least: 0, most: 30, step: 0.5, unit: '%' },
        0.01,
      ),
    ],
  },
  relief: {
    name: TONE_NAMES.relief,
    use: 'Local contrast over a wide radius; edges are held back.',
    fresh: () => ({ kind: 'relief', radius: 20, amount: 0.25 }),
    fields: [
      field<'relief'>('radius', { label: 'Radius', least: 2, most: 120, unit: 'px', bent: true }),
      field<'relief'>('amount', { label: 'Amount', least: 0, most: 200, ...percent }, 0.01),
    ],
  },
  denoise: {
    name: TONE_NAMES.denoise,
    use: 'Where the picture is smooth; detail stays.',
    fresh: () => ({ kind: 'denoise', radius: 3, noise: 0.02 }),
    fields: [
      field<'denoise'>('radius', { label: 'Radius', least: 1, most: 12, unit: 'px' }),
      field<'denoise'>('noise', { label: 'Noise', least: 0, most: 15, step: 0.1, unit: '%' }, 0.01),
    ],
  },
  despeckle: {
    name: TONE_NAMES.despeckle,
    use: 'Pixels that stand out alone take their surroundings’ tone.',
    fresh: () => ({ kind: 'despeckle', radius: 1, threshold: 0.1 }),
    fields: [
      field<'despeckle'>('radius', { label: 'Radius', least: 1, most: 3, unit: 'px' }),
      field<'despeckle'>(
        'threshold',
        { label: 'Stands out by', least: 1, most: 50, ...percent },
        0.01,
      ),
    ],
  },
  grain: {
    name: TONE_NAMES.grain,
    use: 'Gives smoothed places the picture’s grain back.',
    fresh: () => ({ kind: 'grain', deviation: 0.015, size: 1.5, seed: 1 }),
    fields: [
      field<'grain'>(
        'deviation',
        { label: 'Strength', least: 0, most: 10, step: 0.1, unit: '%' },
        0.01,
      ),
      field<'grain'>('size', { label: 'Size', least: 0.5, most: 6, step: 0.1, unit: 'px' }),
    ],
  },
  focus: {
    name: TONE_NAMES.focus,
    use: 'Sharp within a band or a round place, softer beyond.',
    fresh: ({ width, height }) => ({
      kind: 'focus',
      shape: 'round',
      at: [width / 2, height / 2],
      turn: 0,
      sharp: Math.round(Math.min(width, height) / 4),
      fade: Math.round(Math.min(width, height) / 3),
      radius: Math.max(2, Math.round(Math.max(width, height) / 400)),
    }),
    fields: [
      field<'focus'>('sharp', {
        label: 'Sharp within',
        least: 0,
        most: 4000,
        unit: 'px',
        bent: true,
      }),
      field<'focus'>('fade', { label: 'Fades over', least: 1, most: 4000, unit: 'px', bent: true }),
      field<'focus'>('radius', {
        label: 'Blur',
        least: 0,
        most: 60,
        step: 0.5,
        unit: 'px',
        bent: true,
      }),
      field<'focus'>('turn', { label: 'Turn of the band', least: -90, most: 90, unit: '°' }),
    ],
  },
};

function between(at: 0 | 1, label: string): ActField {
  return {
    label,
    least: 0,
    most: 100,
    ...percent,
    get: (act) => (act as ToneActOf<'strokes'>).between[at] * 100,
    set: (act, value) => {
      const limits = [...(act as ToneActOf<'strokes'>).between] as [number, number];
      limits[at] = value / 100;
      return { ...act, between: [Math.min(...limits), Math.max(...limits)] } as ToneAct;
    },
  };
}

export const ACT_KINDS = Object.keys(ACTS) as ToneKind[];
