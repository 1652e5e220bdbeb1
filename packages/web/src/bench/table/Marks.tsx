import type { Point } from '@tersum/core';
import { pathOf } from '@tersum/core';
import type { Repair, Site } from '@tersum/document';
import styled from 'styled-components';
import { useBenchState } from '../model/context.js';
import { shapeNow } from '../model/state.js';
import { docketOrder, letterOf } from '../model/repairs.js';
import { DonorMark } from './DonorMark.js';
import { FillMarks } from './FillMarks.js';
import { PieceMarks } from './PieceMarks.js';
import { ChainHandles } from './ChainHandles.js';
import type { Size, Viewport } from './viewport.js';
import { toScreen } from './viewport.js';

/** Marks over the picture: the selected site with its donor, what is being drawn, and all sites on demand. */
export function Marks() {
  const { viewport, table, records, selected, also, draft, width, showAll, pick } = useBenchState(
    (s) => ({
      viewport: s.viewport,
      table: s.table,
      records: s.records,
      selected: s.selected,
      also: s.also,
      draft: s.draft,
      width: s.tool.width,
      showAll: s.showAll,
      pick: shapeNow(s) === 'pick',
    }),
  );
  if (!viewport || !records) return null;
  const order = docketOrder(records);
  const chosen = order.find((r) => r.id === selected);
  const shown = showAll ? order : order.filter((r) => r.id === selected || also.includes(r.id));
  const moving = pick && draft !== null && draft.site.kind !== 'stroke';
  return (
    <Layer aria-hidden={!chosen}>
      {!moving &&
        shown.map((repair) =>
          repair.method.kind === 'piece' ? (
            <PieceMarks
              key={repair.id}
              repair={repair}
              piece={repair.method}
              letter={letterOf(order.indexOf(repair))}
              viewport={viewport}
              table={table}
            />
          ) : (
            <SiteMark
              key={repair.id}
              site={repair.site}
              width={repair.width}
              viewport={viewport}
              table={table}
              letter={letterOf(order.indexOf(repair))}
            />
          ),
        )}
      {draft && (
        <SiteMark
          site={draft.site}
          width={moving ? (chosen?.width ?? width) : width}
          viewport={viewport}
          table={table}
          open={!moving}
        />
      )}
      {chosen && !moving && (
        <>
          <DonorMark
            repair={chosen}
            letter={letterOf(order.indexOf(chosen))}
            viewport={viewport}
            table={table}
          />
          <ChainHandles key={chosen.id} repair={chosen} viewport={viewport} table={table} />
          {chosen.method.kind === 'fill' && (
            <FillMarks
              key={`fill ${chosen.id}`}
              repair={chosen}
              fill={chosen.method}
              viewport={viewport}
              table={table}
            />
          )}
        </>
      )}
    </Layer>
  );
}

interface SiteMarkProps {
  readonly site: Site;
  readonly width: Repair['width'];
  readonly viewport: Viewport;
  readonly table: Size;
  readonly letter?: string;
  /** Still being drawn. */
  readonly open?: boolean;
}

function SiteMark(props: SiteMarkProps) {
  const { site } = props;
  if (site.kind !== 'parts') return <SingleMark {...props} site={site} />;
  return site.parts.map((part, i) => (
    <SingleMark
      key={i}
      {...props}
      site={part.shape}
      width={part.width}
      letter={i ? `${props.letter ?? ''}${i + 1}` : (props.letter ?? '')}
    />
  ));
}

function SingleMark({
  site,
  width,
  viewport,
  table,
  letter,
  open,
}: SiteMarkProps & { readonly site: Exclude<Site, { kind: 'parts' }> }) {
  const area = site.kind === 'outline' || site.kind === 'rectangle';
  const points = pathOf(site).map((p) => toScreen(viewport, table, p));
  const d = pathData(points, area && !(open && site.kind === 'outline'));
  const band = width * viewport.zoom;
  const first = points[0]!;
  const room = boxAround(points, band / 2 + 3);
  const id = `band-${letter ?? 'draft'}`;
  return (
    <g data-site={letter ?? 'draft'}>
      {area ? (
        <>
          <path d={d} className="halo" />
          <path d={d} className="edge" />
        </>
      ) : (
        <>
          <mask id={id} maskUnits="userSpaceOnUse" {...room}>
            <rect {...room} fill="#fff" />
            <path
              d={d}
              stroke="#000"
              strokeWidth={band}
              strokeLinecap="round"
              strokeLinejoin="round"
              fill="none"
            />
          </mask>
          <g mask={`url(#${id})`}>
            <path d={d} stroke="rgb(255 255 255 / 90%)" strokeWidth={band + 5} className="band" />
            <path d={d} stroke="#1f2326" strokeWidth={band + 2.5} className="band" />
          </g>
          {points.length > 1 && <path d={d} className="centre" />}
        </>
      )}
      {open &&
        site.kind !== 'rectangle' &&
        site.kind !== 'stroke' &&
        cornersOf(site).map((p, i) => {
          const [x, y] = toScreen(viewport, table, p);
          return <rect key={i} x={x - 3} y={y - 3} width={6} height={6} className="node" />;
        })}
      {letter && (
        <text x={first[0]} y={first[1] - band / 2 - 8}>
          {letter}
        </text>
      )}
    </g>
  );
}

function cornersOf(site: Site): readonly Point[] {
  return site.kind === 'chain' || site.kind === 'outline' ? site.points : [];
}

function boxAround(points: readonly Point[], reach: number) {
  const xs = points.map((p) => p[0]);
  const ys = points.map((p) => p[1]);
  const x = Math.min(...xs) - reach;
  const y = Math.min(...ys) - reach;
  return { x, y, width: Math.max(...xs) + reach - x, height: Math.max(...ys) + reach - y };
}

function pathData(points: readonly Point[], closed: boolean): string {
  const body = points
    .map(([x, y], i) => `${i ? 'L' : 'M'}${x.toFixed(1)} ${y.toFixed(1)}`)
    .join('');
  if (points.length === 1) return `${body}h0.01`;
  return closed ? `${body}Z` : body;
}

const Layer = styled.svg`
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
  .halo {
    fill: none;
    stroke: rgb(255 255 255 / 90%);
    stroke-width: 3;
  }
  .edge {
    fill: none;
    stroke: #1f2326;
    stroke-width: 1.2;
    stroke-dasharray: 7 2;
  }
  .band {
    fill: none;
    stroke-linecap: round;
    stroke-linejoin: round;
  }
  .centre {
    fill: none;
    stroke: #1f2326;
    stroke-opacity: 0.55;
    stroke-width: 1;
    stroke-dasharray: 1 5;
  }
  .node {
    fill: #fff;
    stroke: #1f2326;
  }
  text {
    font:
      600 12px 'IBM Plex Mono',
      monospace;
    fill: #1f2326;
    stroke: rgb(255 255 255 / 90%);
    stroke-width: 3px;
    paint-order: stroke;
    text-anchor: middle;
  }
`;
