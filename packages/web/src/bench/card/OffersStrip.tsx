import { extentOf } from '@tersum/core';
import type { Offer, Repair } from '@tersum/document';
import { useMemo, useRef } from 'react';
import styled from 'styled-components';
import { Caption, Figure, MainPush, Push, Toggle } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { useBench, useBenchState } from '../model/context.js';
import { dropOffers, findOffers, takeOffer, walkOffers } from '../model/offers.js';
import type { BenchState } from '../model/state.js';
import { paintPicture } from '../table/paint.js';
import { useCanvas } from '../table/useCanvas.js';
import { Gap, Line } from './lines.js';

const THUMB = { width: 48, height: 34 };

/** The best donors for the open repair, side by side; arrow keys walk through them. */
export function OffersStrip({ repair }: { readonly repair: Repair }) {
  const { bench } = useBench();
  const offers = useBenchState((s) => (s.offers?.repair === repair.id ? s.offers : null));
  if (!offers) return null;
  if (!offers.list)
    return (
      <Line>
        <Caption role="status">Looking for donors…</Caption>
      </Line>
    );
  return (
    <Line>
      <Strip role="listbox" aria-label="Donors">
        {offers.list.map((offer, i) => (
          <Pick
            key={i}
            type="button"
            role="option"
            aria-selected={i === offers.at}
            aria-label={`Donor ${i + 1}, match ${matchOf(offer)} %`}
            onClick={() => {
              const step = i - offers.at;
              for (let k = 0; k < Math.abs(step); k++) walkOffers(bench, step > 0 ? 1 : -1);
            }}
          >
            <Thumb repair={repair} offer={offer} />
            <Figure>{matchOf(offer)} %</Figure>
          </Pick>
        ))}
      </Strip>
      <Toggle
        aria-label="Turned, mirrored and scaled donors too"
        isSelected={offers.wide}
        onChange={(wide) => void findOffers(bench, repair, wide)}
      >
        Turned ones too
      </Toggle>
      <Gap />
      <Push onPress={() => dropOffers(bench)}>Leave as it was</Push>
      <MainPush onPress={() => takeOffer(bench)}>Take this donor</MainPush>
    </Line>
  );
}

/** What colours and slopes weigh together in a misfit: its root, so shared out, is a difference in 8-bit codes. */
const WEIGHTS = 21;
/** A difference of so many codes is no match at all. */
const NO_MATCH = 25;

/** How well a donor matches, 0..100 %: its ring, and what it holds beside what the other places hold. */
function matchOf({ misfit }: Offer): number {
  return Math.round(100 * Math.max(0, 1 - Math.sqrt(misfit / WEIGHTS) / NO_MATCH));
}

function Thumb({ repair, offer }: { readonly repair: Repair; readonly offer: Offer }) {
  const { bench, tiles } = useBench();
  const canvas = useRef<HTMLCanvasElement>(null);
  const work = useMemo(
    () => ({
      watch: (s: BenchState) => [s.view, s.records === null],
      paint(ctx: CanvasRenderingContext2D, ratio: number) {
        const { records, view } = bench.store.getState();
        if (!records) return false;
        const box = extentOf(repair.site, repair);
        const { dx, dy, turn } = offer.donor;
        const sight = {
          x: box.x + box.width / 2 + dx,
          y: box.y + box.height / 2 + dy,
          zoom: THUMB.height / (Math.max(box.width, box.height, 16) * 1.4),
          turn,
        };
        const state = { kind: 'repaired', view } as const;
        return paintPicture(ctx, tiles, records.picture, state, sight, THUMB, ratio);
      },
    }),
    [bench, tiles, repair, offer],
  );
  useCanvas(canvas, THUMB, work);
  return <canvas ref={canvas} style={THUMB} aria-hidden />;
}

const Strip = styled.div`
  display: flex;
  gap: 6px;
`;

const Pick = styled.button`
  display: grid;
  gap: 1px;
  padding: 2px;
  border: 2px solid transparent;
  border-radius: ${look.corner};
  background: none;
  justify-items: center;
  &[aria-selected='true'] {
    border-color: ${look.done};
    background: ${look.doneSoft};
  }
  span {
    font-size: 11px;
  }
`;
