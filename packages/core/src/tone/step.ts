import type { Point } from '../shape/site.js';
import type { Levels } from './levels.js';

/** Red, green, blue. */
export type Triple = readonly [number, number, number];

/** A stroke along points, px of the picture. */
export interface ToneStroke {
  readonly points: readonly Point[];
  /** px */
  readonly width: number;
}

/** Where a step works: 1 inside, fading over `feather` px. */
export type ToneMask = {
  readonly inverted: boolean;
} & (
  | { readonly kind: 'outline'; readonly points: readonly Point[]; readonly feather: number }
  /** Nothing at `from`, all at `to`. */
  | { readonly kind: 'gradient'; readonly from: Point; readonly to: Point }
  | { readonly kind: 'painted'; readonly strokes: readonly ToneStroke[]; readonly feather: number }
);

/** What a step of the tone stack does. Values are encoded (display-referred), 0..1, unless said otherwise. */
export type ToneAct =
  /** Black, white and middle points: of all channels together, then of each. */
  | {
      readonly kind: 'levels';
      readonly all: Levels;
      readonly channels: readonly [Levels, Levels, Levels];
    }
  /** Light that falls off towards the corners made even: divides by 1 - falloff r^2. Below 0 it lets the corners fall off. */
  | { readonly kind: 'flatten'; readonly falloff: number }
  /** A smooth rising curve through points [in, out]. */
  | {
      readonly kind: 'curve';
      readonly channel: 'all' | 'red' | 'green' | 'blue';
      readonly points: readonly Point[];
    }
  /** Stops of light; contrast about mid-grey -1..1; warmth and tint -1..1 as gains of red against blue, and green. */
  | {
      readonly kind: 'light';
      readonly exposure: number;
      readonly contrast: number;
      readonly warmth: number;
      readonly tint: number;
    }
  /** Added to red, green and blue in the shadows, the middle and the highlights, each -1..1. */
  | {
      readonly kind: 'balance';
      readonly shadows: Triple;
      readonly middle: Triple;
      readonly highlights: Triple;
    }
  /** -1 grey .. 0 as it is .. 1 twice as far from grey. */
  | { readonly kind: 'saturation'; readonly amount: number }
  /** Grey from shares of red, green and blue. */
  | { readonly kind: 'grey'; readonly weights: Triple }
  /** Every tone keeps its lightness and takes one hue: degrees and CIELAB chroma of the middle tones. */
  | { readonly kind: 'toning'; readonly hue: number; readonly chroma: number }
  /** A colour look from a table of `size`^3 colours; see cubeText. */
  | { readonly kind: 'look'; readonly name: string; readonly size: number; readonly table: string }
  /** Lightens (or darkens, below 0) along strokes, stops; only tones between two values. */
  | {
      readonly kind: 'strokes';
      readonly strokes: readonly ToneStroke[];
      readonly stops: number;
      readonly softness: number;
      readonly between: readonly [number, number];
    }
  /** Unsharp masking: radius in px of the full picture; `limit` is the most a tone may pass its surroundings' range. */
  | {
      readonly kind: 'sharpen';
      readonly radius: number;
      readonly amount: number;
      readonly limit: number;
    }
  /** Adds what a wide blur takes away, halved where it is strong: relief rather than edges. */
  | { readonly kind: 'relief'; readonly radius: number; readonly amount: number }
  /** Noise taken out where the picture is smooth: radius px, `noise` the deviation taken for noise, 0..1. */
  | { readonly kind: 'denoise'; readonly radius: number; readonly noise: number }
  /** Single deviating pixels replaced by the middle of their surroundings. */
  | { readonly kind: 'despeckle'; readonly radius: number; readonly threshold: number }
  /** Even grain of a deviation (0..1) and a size in px. */
  | {
      readonly kind: 'grain';
      readonly deviation: number;
      readonly size: number;
      readonly seed: number;
    }
  /** Sharp within a band or a round place, blurred beyond; radius of the blur px, over `fade` px. */
  | {
      readonly kind: 'focus';
      readonly shape: 'band' | 'round';
      readonly at: Point;
      /** Degrees counter-clockwise, of the band. */
      readonly turn: number;
      /** px from the middle that stay sharp. */
      readonly sharp: number;
      readonly fade: number;
      readonly radius: number;
    };

export type ToneKind = ToneAct['kind'];
export type ToneActOf<K extends ToneKind> = Extract<ToneAct, { kind: K }>;

/** A step of the tone stack. */
export interface ToneStep {
  readonly act: ToneAct;
  readonly enabled: boolean;
  /** 0..1 */
  readonly strength: number;
  readonly mask: ToneMask | null;
}

/** Where a region lies in the picture, and how much it is reduced. */
export interface TonePlace {
  /** Size of the whole picture, full px. */
  readonly width: number;
  readonly height: number;
  /** Full px that lie left of and above the region's first pixel's edge. */
  readonly x: number;
  readonly y: number;
  /** Full px a region's pixel stands for, at least 1. */
  readonly scale: number;
}
