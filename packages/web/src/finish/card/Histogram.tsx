import type { ApexOptions } from 'apexcharts';
import { Suspense, useDeferredValue, useMemo } from 'react';
import styled from 'styled-components';
import { Chart } from '../../look/Chart.js';
import { Caption, Figure } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import type { Tones } from '../view/tone-worker.js';

const COLOURS = { grey: ['#565c57'], colour: ['#b83a22', '#2f7d4f', '#33629c'] } as const;
const NAMES = ['Red', 'Green', 'Blue'] as const;

/** How often every tone occurs, and what share is wholly black or white. */
export function Histogram({ tones }: { readonly tones: Tones | null }) {
  // A chart takes longer to draw than the picture: it follows when there is time.
  const shown = useDeferredValue(tones);
  const options = useMemo((): ApexOptions => {
    const colours = shown?.histogram.length === 3 ? COLOURS.colour : COLOURS.grey;
    return {
      chart: {
        animations: { enabled: false },
        toolbar: { show: false },
        zoom: { enabled: false },
        sparkline: { enabled: true },
      },
      stroke: { width: 1.5, curve: 'straight' },
      colors: [...colours],
      fill: { type: 'solid', opacity: 0.1 },
      dataLabels: { enabled: false },
      tooltip: { enabled: false },
      legend: { show: false },
      yaxis: { min: 0, max: 1 },
    };
  }, [shown?.histogram.length]);
  const series = useMemo(() => {
    if (!shown) return [];
    // The ends would dwarf all else: the scale is that of the tones between them.
    const most = Math.max(1, ...shown.histogram.flatMap((h) => h.slice(2, -2)));
    return shown.histogram.map((counts, c) => ({
      name: shown.histogram.length === 3 ? NAMES[c]! : 'Grey',
      data: counts.map((n) => Math.min(1, Math.sqrt(n / most))),
    }));
  }, [shown]);
  const share = (v: number): string => `${(v * 100).toFixed(v < 0.001 ? 2 : 1)} %`;
  return (
    <Frame aria-label="Histogram">
      <Plot>
        <Suspense fallback={null}>
          {series.length > 0 && (
            <Chart type="area" height={96} width="100%" series={series} options={options} />
          )}
        </Suspense>
      </Plot>
      <Ends>
        <span>
          <Caption>black</Caption> <Figure>{shown ? share(shown.clipped.black) : '–'}</Figure>
        </span>
        <span>
          <Caption>white</Caption> <Figure>{shown ? share(shown.clipped.white) : '–'}</Figure>
        </span>
      </Ends>
    </Frame>
  );
}

const Frame = styled.section`
  padding: 12px 14px 10px;
  border-bottom: 1px solid ${look.hairline};
`;

const Plot = styled.div`
  height: 96px;
  overflow: hidden;
  background: ${look.paperHigh};
  border: 1px solid ${look.hairline};
`;

const Ends = styled.div`
  display: flex;
  justify-content: space-between;
  padding-top: 4px;
`;
