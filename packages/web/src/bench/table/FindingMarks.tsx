import type { DocketFinding } from '@tersum/document';
import styled from 'styled-components';
import { look } from '../../look/theme.js';
import { useBench, useBenchState } from '../model/context.js';
import { showFinding } from '../model/survey-acts.js';
import { useFindings } from '../model/useFindings.js';
import type { Size, Viewport } from './viewport.js';
import { toScreen } from './viewport.js';

/** Findings drawn at once at most: more would only cover the picture. */
const MOST = 1500;

/** Outlines of the kind that is open on the docket, and of the finding that is selected. */
export function FindingMarks() {
  const { bench } = useBench();
  const { groups, survey } = useFindings();
  const { viewport, table, kind, chosen, hidden } = useBenchState((s) => ({
    viewport: s.viewport,
    table: s.table,
    kind: s.findingKind,
    chosen: s.finding,
    hidden: s.asReceived,
  }));
  if (!viewport || hidden) return null;
  const group = groups.find((g) => g.kind === kind);
  const all = groups.flatMap((g) => [...g.open, ...g.mended]);
  const shown = (group?.open ?? []).filter((f) => near(f, viewport, table)).slice(0, MOST);
  const selected = all.find((f) => f.id === chosen);
  const settings = survey?.settings;
  const areas = settings?.areas.filter((area) => area.kind === kind) ?? [];
  return (
    <Layer aria-label="Marks of findings">
      {shown.map((finding) => (
        <Mark
          key={finding.id}
          d={pathOf(finding, viewport, table)}
          data-finding={finding.kind}
          onPointerDown={(event) => event.button === 0 && event.stopPropagation()}
          onClick={() => showFinding(bench, finding)}
        />
      ))}
      {areas.map(({ only, outline }, k) => (
        <Area key={k} data-only={only} d={pathOf({ outlines: [outline] }, viewport, table)} />
      ))}
      {kind === 'pulls' && settings?.subject && (
        <Area data-only d={pathOf({ outlines: [settings.subject] }, viewport, table)} />
      )}
      {selected && <Chosen d={pathOf(selected, viewport, table)} />}
    </Layer>
  );
}

function near({ box }: DocketFinding, viewport: Viewport, table: Size): boolean {
  const [x, y] = toScreen(viewport, table, [box.x + box.width / 2, box.y + box.height / 2]);
  const reach = (Math.hypot(box.width, box.height) / 2) * viewport.zoom;
  return x > -reach && y > -reach && x < table.width + reach && y < table.height + reach;
}

function pathOf(
  { outlines }: Pick<DocketFinding, 'outlines'>,
  viewport: Viewport,
  table: Size,
): string {
  return outlines
    .map(
      (outline) =>
        `${outline
          .map((point, k) => {
            const [x, y] = toScreen(viewport, table, point);
            return `${k ? 'L' : 'M'}${x.toFixed(1)} ${y.toFixed(1)}`;
          })
          .join('')}Z`,
    )
    .join('');
}

const Layer = styled.svg`
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
`;

const Area = styled.path`
  fill: none;
  stroke: ${look.ink};
  stroke-width: 1.5;
  stroke-dasharray: 2 4;
  &[data-only='true'] {
    stroke: ${look.done};
    stroke-dasharray: 8 4;
  }
`;

const Mark = styled.path`
  fill: transparent;
  stroke: ${look.todo};
  stroke-width: 1.2;
  pointer-events: all;
  paint-order: stroke;
  cursor: pointer;
`;

const Chosen = styled.path`
  fill: none;
  stroke: ${look.todo};
  stroke-width: 2.2;
  stroke-dasharray: 5 2;
`;
