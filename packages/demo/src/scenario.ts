import type { Change, Edit, JobDraft } from '@tersum/document';
import { addRepair, fillOf, spots } from './repairs.js';
import type { Sketch } from './repairs.js';
import { fixedId } from './ids.js';

/** A made-up picture and what was done to it so far. */
export interface DemoPicture {
  /** File in this package's photos folder. */
  readonly file: string;
  readonly name: string;
  /** Changes in order; `layerId` is the layer every picture starts with. */
  steps(layerId: string): Omit<Change, 'version'>[];
}

export interface DemoJob {
  readonly draft: JobDraft;
  readonly pictures: readonly DemoPicture[];
}

/** The jobs of the invented harbour town of Marrow Quay; due dates count from `today`. */
export function scenario(today: Date): DemoJob[] {
  const inDays = (days: number): string =>
    new Date(today.getTime() + days * 86_400_000).toISOString().slice(0, 10);
  return [
    {
      draft: {
        title: 'Nettle Steps, for the visitors’ leaflet',
        client: 'Marrow Quay Harbour Office',
        due: inDays(2),
        notes: 'Overhead wires out; the pole may stay. Keep the sign.',
        policy: 'documentary',
        state: 'in work',
      },
      pictures: [{ file: 'wires.jpg', name: 'Lane with wires.jpg', steps: lane }],
    },
    {
      draft: {
        title: 'Regatta day, the old print',
        client: 'Ottilie Brandreth',
        due: inDays(5),
        notes: 'Crease, scratches, torn corner, ink on the sky. Documentary: only damage may go.',
        policy: 'documentary',
        state: 'in work',
      },
      pictures: [
        { file: 'quay-print-heavy.jpg', name: 'Regatta print.jpg', steps: print },
        { file: 'quay-print-light-crop16.png', name: 'Quay detail, 16 bit.png', steps: () => [] },
      ],
    },
    {
      draft: {
        title: 'Allotment behind the fence',
        client: 'Saltmarsh Gardeners’ Union',
        due: inDays(9),
        notes: 'Take the fence off the view if it can be done.',
        policy: 'picture',
        state: 'new',
      },
      pictures: [{ file: 'mesh-fence.jpg', name: 'Garden through the fence.jpg', steps: () => [] }],
    },
    {
      draft: {
        title: 'Jug for the pottery catalogue',
        client: 'Pell & Daughter, Potters',
        due: inDays(12),
        notes: 'Scratches and creases of the canvas backdrop.',
        policy: 'documentary',
        state: 'in work',
      },
      pictures: [{ file: 'jug-scratched.jpg', name: 'Jug on canvas.jpg', steps: jug }],
    },
    {
      draft: {
        title: 'Carnival head, condition picture',
        client: 'Marrow Quay Carnival Society',
        due: inDays(16),
        notes: 'Chips and spots beside lip and eye, without touching the painted lines.',
        policy: 'documentary',
        state: 'to check',
      },
      pictures: [{ file: 'head-blemished.jpg', name: 'Carnival head.jpg', steps: head }],
    },
  ];
}

function lane(layerId: string): Omit<Change, 'version'>[] {
  return [
    { label: 'Rename layer', edits: [renamed(layerId, 'Wires')] },
    ...done('lane', layerId, 'Fill a wire', [
      {
        site: {
          kind: 'chain',
          points: [
            [1319, 18],
            [1268, 312],
          ],
          bends: [-3],
        },
        width: 13,
        method: fillOf('lane wire'),
        reason: 'Wire 7 px wide, sky and roof behind it',
      },
    ]),
  ];
}

function print(layerId: string): Omit<Change, 'version'>[] {
  return [
    { label: 'Rename layer', edits: [renamed(layerId, 'Scratches')] },
    ...done('print', layerId, 'Fill a scratch', [
      {
        site: {
          kind: 'chain',
          points: [
            [800, 296],
            [1182, 664],
          ],
          bends: [0],
        },
        width: 14,
        method: fillOf('print scratch'),
        reason: 'Scratch 3 px wide over sky and roof',
      },
    ]),
  ];
}

function jug(layerId: string): Omit<Change, 'version'>[] {
  return [
    { label: 'Rename layer', edits: [renamed(layerId, 'Backdrop')] },
    ...done('jug', layerId, 'Fill a scratch', [
      {
        site: { kind: 'rectangle', x: 370, y: 246, width: 32, height: 70 },
        width: 24,
        method: fillOf('jug scratch'),
        reason: 'Scratch on canvas, texture close by',
      },
      {
        site: { kind: 'rectangle', x: 852, y: 484, width: 22, height: 122 },
        width: 24,
        method: fillOf('jug scratch 2'),
        reason: 'Scratch on canvas, texture close by',
      },
    ]),
  ];
}

function head(layerId: string): Omit<Change, 'version'>[] {
  const lip = fixedId('layer lip');
  const beside = 'Blemish 7 px from a painted line: donor along the line';
  return [
    { label: 'Rename layer', edits: [renamed(layerId, 'Round the eyes')] },
    {
      label: 'Add layer',
      edits: [
        {
          entity: 'layer',
          id: lip,
          after: { id: lip, name: 'Along the lip', visible: true, position: 1 },
        },
      ],
    },
    ...done(
      'eyes',
      layerId,
      'Graft a spot',
      spots(
        [
          [406, 586, 17, -26, 4],
          [405, 725, 14, -22, 6],
          [691, 547, 18, 4, -26],
        ],
        beside,
      ),
    ),
    ...done(
      'lip',
      lip,
      'Graft a chip',
      spots(
        [
          [776, 862, 26, 30, -6],
          [842, 856, 13, 6, -22],
          [382, 883, 18, -20, -16],
        ],
        beside,
      ),
    ),
  ];
}

function renamed(layerId: string, name: string): Edit {
  return { entity: 'layer', id: layerId, after: { id: layerId, name, visible: true, position: 0 } };
}

function done(
  name: string,
  layerId: string,
  label: string,
  sketches: readonly Sketch[],
): Omit<Change, 'version'>[] {
  return sketches.map((sketch, k) => ({ label, edits: [addRepair(name, layerId, k, sketch)] }));
}
