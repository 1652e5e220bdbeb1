import type { Point } from '@tersum/core';
import type { Repair } from '@tersum/document';
import { useBench } from '../model/context.js';
import { donorOf, scaledBy, turnedBy } from '../model/donors.js';
import { repairEdit } from '../model/repairs.js';
import { Handle } from './Handle.js';
import { usePull } from './usePull.js';
import type { Size, Viewport } from './viewport.js';
import { toScreen } from './viewport.js';

interface PlacementHandlesProps {
  readonly repair: Repair;
  /** Corners of what is turned and scaled, picture px. */
  readonly corners: readonly Point[];
  /** The mark stands where pixels come from: a bigger area there means content laid in smaller. */
  readonly inward?: boolean;
  readonly viewport: Viewport;
  readonly table: Size;
}

/** A round handle that turns and a square one that scales. */
export function PlacementHandles(props: PlacementHandlesProps) {
  const { repair, corners, inward, viewport, table } = props;
  const { bench } = useBench();
  const donor = donorOf(repair);
  const middle: Point = [
    corners.reduce((sum, c) => sum + c[0], 0) / corners.length,
    corners.reduce((sum, c) => sum + c[1], 0) / corners.length,
  ];
  const right: Point = mid(corners[1]!, corners[2]!);
  const corner = corners[2]!;
  const sign = inward ? -1 : 1;

  const turned = (way: Point): Repair => {
    const angle = (from: Point): number =>
      (-Math.atan2(from[1] - middle[1], from[0] - middle[0]) * 180) / Math.PI;
    const flip = donor && donor.mirrorX !== donor.mirrorY ? -1 : 1;
    const by = angle([right[0] + way[0], right[1] + way[1]]) - angle(right);
    return turnedBy(repair, inward ? sign * by * flip : by);
  };
  const scaled = (way: Point): Repair => {
    const far = (p: Point): number => Math.hypot(p[0] - middle[0], p[1] - middle[1]) || 1;
    const ratio = far([corner[0] + way[0], corner[1] + way[1]]) / far(corner);
    return scaledBy(repair, inward ? 1 / Math.max(0.05, ratio) : ratio);
  };
  const hand = (label: string, change: (way: Point) => Repair) => ({
    move(way: Point) {
      bench.set({ sliding: change(way) });
      bench.tryOut([repairEdit(change(way))]);
    },
    drop: (way: Point) => void bench.change(label, [repairEdit(change(way))]),
  });
  const turning = hand('Turn a donor', turned);
  const scaling = hand('Scale a donor', scaled);
  const turnPull = usePull(turning.move, turning.drop);
  const scalePull = usePull(scaling.move, scaling.drop);
  const [tx, ty] = beyond(middle, right, 14);
  const [sx, sy] = beyond(middle, corner, 8);
  return (
    <>
      <Handle as="circle" cx={tx} cy={ty} r={5} {...turnPull} data-handle="turn">
        <title>Turn</title>
      </Handle>
      <Handle
        as="rect"
        x={sx - 4}
        y={sy - 4}
        width={8}
        height={8}
        {...scalePull}
        data-handle="scale"
      >
        <title>Scale</title>
      </Handle>
    </>
  );

  /** A little farther out than a point, on screen. */
  function beyond(from: Point, to: Point, by: number): Point {
    const a = toScreen(viewport, table, from);
    const b = toScreen(viewport, table, to);
    const far = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
    return [b[0] + ((b[0] - a[0]) / far) * by, b[1] + ((b[1] - a[1]) / far) * by];
  }
}

function mid(a: Point, b: Point): Point {
  return [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
}
