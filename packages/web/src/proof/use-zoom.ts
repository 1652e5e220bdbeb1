import { eyeSpread, millimetres, spreadAtUse } from '@tersum/core';
import type { SurveySettings } from '@tersum/document';
import { useOf } from '@tersum/document';

/** A CSS px is 1/96 inch by definition (CSS Values and Units, 6.2). */
const CSS_PX_MM = 25.4 / 96;
/** How far eyes usually are from a screen, mm; common practice. */
const EYE = 600;

/** The zoom at which a picture takes the same visual angle on screen as it will at its use. */
export function zoomAtUse(
  settings: SurveySettings,
  { width, ppi }: { readonly width: number; readonly ppi: number | null },
) {
  const use = useOf(settings, ppi);
  const pixel = millimetres(1, use.ppi) * use.enlargement;
  return {
    zoom: ((pixel / use.distance) * EYE) / CSS_PX_MM,
    distance: Math.round(use.distance / 10),
    eye: EYE / 10,
    /** Width of the print, mm. */
    width: Math.round(width * pixel),
  };
}

/**
 * How far a picture has to be blurred on screen so that it shows what eyes will see of it at its use: what they blur there,
 * less what they blur at the screen by themselves.
 * @returns standard deviation, CSS px; 0 where the screen shows no more than the use
 */
export function blurOnScreen(settings: SurveySettings, ppi: number | null, zoom: number): number {
  const there = spreadAtUse(useOf(settings, ppi)) * zoom;
  const here = eyeSpread(EYE) / CSS_PX_MM;
  return Math.sqrt(Math.max(0, there ** 2 - here ** 2));
}
