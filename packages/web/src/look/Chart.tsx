import type * as ReactApexCharts from 'react-apexcharts';
import { lazy } from 'react';

type ChartModule = typeof ReactApexCharts;
// The bundler wraps this package once more than its types say.
/** A chart; its package comes when the first one is shown. */
export const Chart = lazy(async () => {
  const m = (await import('react-apexcharts')) as ChartModule & {
    default: { default?: ChartModule['default'] };
  };
  return { default: (m.default.default ?? m.default) as ChartModule['default'] };
});
