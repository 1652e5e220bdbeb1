import type { MethodKind, Repair } from '@tersum/document';
import { WIDTH_LIMITS } from '@tersum/document';
import { useState } from 'react';
import styled from 'styled-components';
import { Dial } from '../../look/Dial.js';
import { Caption, Choice, Choices, Figure, Push } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { useBench, useBenchState } from '../model/context.js';
import { finishDraft } from '../model/drafting.js';
import {
  docketOrder,
  letterOf,
  METHOD_NAMES,
  repairEdit,
  siteLength,
  siteName,
} from '../model/repairs.js';
import type { Shape } from '../model/state.js';
import { SHAPES } from '../model/state.js';
import { DonorLine } from './DonorLine.js';
import type { Settings } from './settings.js';
import { changeMethod, chooseMethod, trySetting, withSetting } from './settings.js';

const METHODS: readonly MethodKind[] = ['clone', 'graft', 'fill'];

const SHAPE_NAMES: Record<Shape, string> = {
  pick: 'Pick',
  dab: 'Dab',
  stroke: 'Stroke',
  chain: 'Chain',
  outline: 'Outline',
  rectangle: 'Rectangle',
};

const HINTS: Record<Shape, string> = {
  pick: 'Click a repair to open it; drag it to move it.',
  dab: 'Click a spot.',
  stroke: 'Draw over what should go.',
  chain: 'Click along the line, one click a run. Each run bends to the line it finds.',
  outline: 'Draw round the area, or click its corners.',
  rectangle: 'Drag over the area.',
};

/** The method card: how the selected repair is done, or how the next one will be. */
export function MethodCard() {
  const { bench } = useBench();
  const { tool, draft, repair, letter } = useBenchState((s) => {
    const order = s.selected && s.records ? docketOrder(s.records) : [];
    const at = order.findIndex((r) => r.id === s.selected);
    return {
      tool: s.tool,
      draft: s.draft,
      repair: order[at] ?? null,
      letter: at < 0 ? '' : letterOf(at),
    };
  });
  const drawing = draft !== null && (tool.shape === 'chain' || tool.shape === 'outline');
  const method = repair ? repair.method.kind : tool.method;
  return (
    <Card aria-label="Method card">
      <Line>
        <Title>{repair ? `${METHOD_NAMES[method]} ${letter}` : 'Next repair'}</Title>
        {repair && (
          <Caption>
            {siteName(repair)}, <Figure>{Math.round(siteLength(repair))} px</Figure> long
          </Caption>
        )}
        <Choices
          aria-label="Method"
          selectionMode="single"
          disallowEmptySelection
          selectedKeys={[method]}
          onSelectionChange={(keys) => {
            const chosen = [...keys][0] as MethodKind;
            if (repair) void changeMethod(bench, repair, chosen);
            else chooseMethod(bench, chosen);
          }}
        >
          {METHODS.map((id) => (
            <Choice key={id} id={id}>
              {METHOD_NAMES[id]}
            </Choice>
          ))}
        </Choices>
        <Gap />
        {repair ? (
          <Push onPress={() => bench.set({ selected: null })}>Done with this one</Push>
        ) : (
          <Choices
            aria-label="Draw"
            selectionMode="single"
            disallowEmptySelection
            selectedKeys={[tool.shape]}
            onSelectionChange={(keys) => {
              bench.set({ draft: null });
              bench.setTool({ shape: [...keys][0] as Shape });
            }}
          >
            {SHAPES.map((id) => (
              <Choice key={id} id={id}>
                {SHAPE_NAMES[id]}
              </Choice>
            ))}
          </Choices>
        )}
      </Line>
      <Dials key={repair?.id ?? 'next'} repair={repair} />
      <Line>
        {drawing ? (
          <>
            <Caption role="status">
              {draft.measuring > 0 ? 'Measuring the line…' : draftWords(draft.site, draft.measured)}
            </Caption>
            <Gap />
            <Push onPress={() => bench.set({ draft: null })}>Drop</Push>
            <Push onPress={() => void finishDraft(bench)}>End and mend</Push>
          </>
        ) : repair || tool.method !== 'fill' ? (
          <DonorLine repair={repair} />
        ) : (
          <Caption>{HINTS[tool.shape]}</Caption>
        )}
      </Line>
    </Card>
  );
}

function draftWords(
  site: { kind: string; points?: readonly unknown[] },
  measured: readonly number[],
): string {
  const corners = site.points?.length ?? 0;
  if (site.kind !== 'chain') return `${corners} corners. Enter closes the outline.`;
  if (corners < 2) return 'Click where the first run ends.';
  const found = measured.length
    ? `Line ${Math.max(...measured).toFixed(1)} px wide: the width follows it.`
    : 'No clear line found: runs stay straight.';
  return `${corners - 1} ${corners === 2 ? 'run' : 'runs'}. ${found} Enter ends the chain.`;
}

function Dials({ repair }: { readonly repair: Repair | null }) {
  const { bench } = useBench();
  const tool = useBenchState((s) => s.tool);
  const [held, setHeld] = useState<Partial<Settings>>({});
  const from: Settings = repair ? { ...pickSettings(repair), ...held } : pickSettings(tool);
  const dial = (setting: keyof Settings) => ({
    onChange(shown: number) {
      const value = setting === 'width' ? shown : shown / 100;
      if (!repair) return bench.setTool({ [setting]: value });
      setHeld((h) => ({ ...h, [setting]: value }));
      trySetting(bench, repair, setting, value);
    },
    onDone(shown: number) {
      if (!repair) return;
      const value = setting === 'width' ? shown : shown / 100;
      const label = `Set ${setting}`;
      void bench
        .change(label, [repairEdit(withSetting(repair, setting, value))])
        .then(() => setHeld(({ [setting]: _, ...rest }) => rest));
    },
  });
  const percent = { least: 0, most: 100, unit: '%' } as const;
  return (
    <Grid>
      <Dial
        label="Width"
        unit="px"
        least={WIDTH_LIMITS.least}
        most={400}
        bent
        keys=", and ."
        value={Math.round(from.width)}
        {...dial('width')}
      />
      <Dial
        label="Softness"
        keys="; and ’"
        {...percent}
        value={Math.round(from.softness * 100)}
        {...dial('softness')}
      />
      <Dial
        label="Flow"
        {...percent}
        least={1}
        value={Math.round(from.flow * 100)}
        {...dial('flow')}
      />
      <Dial
        label="Strength"
        {...percent}
        value={Math.round(from.strength * 100)}
        {...dial('strength')}
      />
    </Grid>
  );
}

function pickSettings({ width, softness, flow, strength }: Settings): Settings {
  return { width, softness, flow, strength };
}

const Card = styled.section`
  background: ${look.paper};
  border-top: 1px solid ${look.hairline};
  padding: 10px 16px 12px;
  display: grid;
  gap: 8px;
`;

const Line = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: 30px;
  min-width: 0;
`;

const Title = styled.h2`
  font-size: 14px;
  font-weight: 600;
  white-space: nowrap;
`;

const Gap = styled.div`
  flex: 1;
`;

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 24px;
`;
