import {
  bytesOf,
  canvasFor,
  coverAfter,
  cropFor,
  cylinderRadius,
  densityFor,
  feather,
  framesFor,
  passesFor,
  printSize,
  runsFor,
  scanDensity,
  smallestSeen,
  strokeWidthFor,
  viewAngle,
} from '@tersum/core';

/** A figure that is put in. */
export interface Entry {
  readonly name: string;
  readonly unit: string;
  readonly value: number;
  readonly least: number;
  readonly most: number;
  readonly step: number;
}

/** A figure that comes out. */
export interface Outcome {
  readonly name: string;
  readonly value: string;
}

/** A rule of the trade that reckons along. */
export interface Calculator {
  readonly id: string;
  readonly title: string;
  readonly rule: string;
  /** A published source, or that there is none. */
  readonly source: string;
  readonly entries: readonly Entry[];
  outcomes(values: readonly number[]): Outcome[];
}

const PRACTICE = 'Common practice, no published source.';

function entry(
  name: string,
  unit: string,
  value: number,
  [least, most, step]: readonly [number, number, number],
): Entry {
  return { name, unit, value, least, most, step };
}

const px = (v: number): string => `${Math.round(v)} px`;
const mm = (v: number): string => `${v.toFixed(v < 10 ? 2 : 1)} mm`;
const percent = (v: number): string => `${(100 * v).toFixed(1)} %`;

export const CALCULATORS: readonly Calculator[] = [
  {
    id: 'print',
    title: 'Print size and bytes',
    rule: 'Inches are px divided by ppi; bytes are width × height × channels × bits / 8. 300 ppi is fine at reading distance, 240 good, 150 for a wall.',
    source: PRACTICE,
    entries: [
      entry('Width', 'px', 4200, [1, 200_000, 1]),
      entry('Height', 'px', 6000, [1, 200_000, 1]),
      entry('Density', 'ppi', 1200, [1, 9600, 1]),
    ],
    outcomes: ([w, h, ppi]) => {
      const { inches, mm: size } = printSize(w!, h!, ppi!);
      return [
        { name: 'Print', value: `${inches[0].toFixed(2)} × ${inches[1].toFixed(2)} in` },
        { name: '', value: `${size[0].toFixed(1)} × ${size[1].toFixed(1)} mm` },
        ...[300, 240, 150].map((d) => {
          const [a, b] = printSize(w!, h!, d).mm;
          return { name: `At ${d} ppi`, value: `${Math.round(a)} × ${Math.round(b)} mm` };
        }),
        { name: '8 bits, colour', value: `${(bytesOf(w!, h!, 3, 8) / 1e6).toFixed(1)} MB` },
        { name: '16 bits, colour', value: `${(bytesOf(w!, h!, 3, 16) / 1e6).toFixed(1)} MB` },
      ];
    },
  },
  {
    id: 'scan',
    title: 'Density to scan at',
    rule: 'Output density times enlargement. A small print at 1200 ppi is common; beyond what the print holds there is nothing to find.',
    source: PRACTICE,
    entries: [
      entry('Print width', 'mm', 88.9, [1, 3000, 0.1]),
      entry('Wanted width', 'mm', 356, [1, 10_000, 1]),
      entry('Output', 'ppi', 300, [36, 1200, 1]),
    ],
    outcomes: ([from, to, out]) => [
      { name: 'Enlargement', value: `${(to! / from!).toFixed(2)} ×` },
      { name: 'Scan at', value: `${Math.ceil(scanDensity(out!, to! / from!))} ppi` },
      { name: 'Pixels across', value: px((to! / 25.4) * out!) },
    ],
  },
  {
    id: 'density',
    title: 'What a wanted print leaves',
    rule: 'The density left is the width in px by the width in inches.',
    source: PRACTICE,
    entries: [
      entry('Width', 'px', 4200, [1, 200_000, 1]),
      entry('Print width', 'mm', 420, [1, 20_000, 1]),
    ],
    outcomes: ([w, size]) => [
      { name: 'Leaves', value: `${densityFor(w!, size! / 25.4).toFixed(0)} ppi` },
    ],
  },
  {
    id: 'shows',
    title: 'What shows at the use',
    rule: 'One arc minute is the least that is seen; smaller defects need no mending. Differences under 2 ΔE do not show side by side.',
    source:
      'Acuity: ISO 8596. Difference: CIEDE2000, ISO/CIE 11664-6; its limit is common practice.',
    entries: [
      entry('Distance', 'mm', 300, [50, 100_000, 10]),
      entry('Density', 'ppi', 300, [1, 9600, 1]),
      entry('Enlargement', '×', 1, [0.05, 50, 0.05]),
    ],
    outcomes: ([distance, ppi, enlargement]) => {
      const least = smallestSeen(distance!);
      return [
        { name: 'Least that shows', value: `${least.toFixed(3)} mm` },
        {
          name: 'In the picture',
          value: `${((least * ppi!) / 25.4 / enlargement!).toFixed(2)} px`,
        },
      ];
    },
  },
  {
    id: 'canvas',
    title: 'Canvas for a shape',
    rule: 'W′ = max(W, H·a/b) and H′ = max(H, W·b/a); what is added is invented. The other way is a crop, which loses.',
    source: 'Geometry.',
    entries: [
      entry('Width', 'px', 1500, [1, 200_000, 1]),
      entry('Height', 'px', 2000, [1, 200_000, 1]),
      entry('Across', '', 16, [1, 100, 1]),
      entry('Down', '', 9, [1, 100, 1]),
    ],
    outcomes: ([w, h, a, b]) => {
      const canvas = canvasFor(w!, h!, a! / b!);
      const crop = cropFor(w!, h!, a! / b!);
      return [
        { name: 'Canvas', value: `${canvas.width} × ${canvas.height} px` },
        { name: 'Invented', value: percent(canvas.invented) },
        { name: 'Or crop', value: `${crop.width} × ${crop.height} px` },
        { name: 'Lost', value: percent(crop.lost) },
      ];
    },
  },
  {
    id: 'stroke',
    title: 'Width of a stroke',
    rule: 'A little wider than the defect: 1.1 to 1.3 times, and at least 2 px over it. Hard (100 %) for what will be filled, about 80 % hard for spots, 30 to 40 % along creases.',
    source: PRACTICE,
    entries: [entry('Defect', 'px', 12, [1, 1000, 1])],
    outcomes: ([size]) => [{ name: 'Stroke', value: px(strokeWidthFor(size!)) }],
  },
  {
    id: 'flow',
    title: 'Passes and flow',
    rule: 'n passes at flow f cover 1 − (1 − f)ⁿ. 5 to 15 % builds fur and grass, 20 to 25 % firmer detail, 70 % is for creases.',
    source: 'Formula by arithmetic; figures are common practice.',
    entries: [entry('Flow', '%', 20, [1, 100, 1]), entry('Passes', '', 3, [1, 100, 1])],
    outcomes: ([flow, n]) => [
      { name: 'Covered', value: percent(coverAfter(n!, flow! / 100)) },
      { name: 'Passes for 95 %', value: String(passesFor(0.95, flow! / 100)) },
    ],
  },
  {
    id: 'bow',
    title: 'Runs along a bowed wire',
    rule: 'n straight runs leave s / n² of the sagitta s, so n ≥ √(s / allowed).',
    source: 'Geometry of a shallow arc.',
    entries: [
      entry('Sagitta', 'px', 18, [0, 10_000, 1]),
      entry('Allowed', 'px', 0.5, [0.1, 50, 0.1]),
    ],
    outcomes: ([s, allowed]) => [{ name: 'Runs', value: String(runsFor(s!, allowed!)) }],
  },
  {
    id: 'sweep',
    title: 'Frames of a hand-held sweep',
    rule: 'The cylinder’s radius is the focal length in px: focal mm / sensor mm × image px.',
    source: 'Pinhole geometry.',
    entries: [
      entry('Focal length', 'mm', 35, [2, 1200, 1]),
      entry('Sensor width', 'mm', 36, [2, 100, 0.1]),
      entry('Image width', 'px', 6000, [100, 50_000, 1]),
      entry('Angle', '°', 180, [1, 360, 1]),
      entry('Overlap', '%', 30, [5, 80, 1]),
    ],
    outcomes: ([focal, sensor, image, angle, overlap]) => [
      { name: 'Radius', value: px(cylinderRadius(focal!, sensor!, image!)) },
      { name: 'Angle of a frame', value: `${viewAngle(focal!, sensor!).toFixed(1)}°` },
      {
        name: 'Frames',
        value: String(framesFor(angle!, viewAngle(focal!, sensor!), overlap! / 100)),
      },
    ],
  },
  {
    id: 'feather',
    title: 'Feather for a change of tone',
    rule: 'About 3.5 to 4 % of the long side, so that nobody sees where it ends.',
    source: PRACTICE,
    entries: [entry('Long side', 'px', 6000, [100, 200_000, 1])],
    outcomes: ([long]) => [
      { name: 'From', value: px(feather(long!, 0.035)) },
      { name: 'To', value: px(feather(long!, 0.04)) },
    ],
  },
  {
    id: 'clip',
    title: 'What may clip',
    rule: 'Black and white points so that no more than a chosen share clips at each end; 0.1 % is usual.',
    source: PRACTICE,
    entries: [
      entry('Width', 'px', 4200, [1, 200_000, 1]),
      entry('Height', 'px', 6000, [1, 200_000, 1]),
      entry('Share', '%', 0.1, [0, 5, 0.01]),
    ],
    outcomes: ([w, h, share]) => [
      {
        name: 'Pixels at each end',
        value: Math.round((w! * h! * share!) / 100).toLocaleString('en'),
      },
    ],
  },
  {
    id: 'size',
    title: 'A mark in the print',
    rule: 'px × 25.4 / ppi is its size in the print; times the enlargement, its size at the use.',
    source: 'Definition of the inch.',
    entries: [
      entry('Mark', 'px', 8, [0.1, 10_000, 0.1]),
      entry('Density', 'ppi', 1200, [1, 9600, 1]),
      entry('Enlargement', '×', 4, [0.05, 50, 0.05]),
    ],
    outcomes: ([mark, ppi, enlargement]) => [
      { name: 'In the print', value: mm((mark! * 25.4) / ppi!) },
      { name: 'At the use', value: mm(((mark! * 25.4) / ppi!) * enlargement!) },
    ],
  },
];
