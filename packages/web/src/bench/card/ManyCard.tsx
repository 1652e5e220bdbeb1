import type { Repair } from '@tersum/document';
import { useState } from 'react';
import { Dial } from '../../look/Dial.js';
import { Caption, Push } from '../../look/parts.js';
import { useBench, useBenchState } from '../model/context.js';
import { canJoin, joined } from '../model/many.js';
import { docketOrder, letterOf, repairEdit } from '../model/repairs.js';
import { Card, Gap, Line, Title } from './lines.js';

/** What can be done with several repairs at once. */
export function ManyCard() {
  const { bench } = useBench();
  const repairs = useBenchState((s) => s.records?.repairs);
  const { selected, also } = useBenchState((s) => ({ selected: s.selected, also: s.also }));
  const [held, setHeld] = useState<number | null>(null);
  const { records } = bench.store.getState();
  if (!repairs || !records) return null;
  const order = docketOrder(records);
  const chosen = order.filter((r) => r.id === selected || also.includes(r.id));
  const letters = chosen.map((r) => letterOf(order.indexOf(r))).join(', ');
  const strength = held ?? chosen.reduce((sum, r) => sum + r.strength, 0) / chosen.length;
  const withStrength = (value: number) =>
    chosen.map((r) => repairEdit({ ...r, strength: value / 100 }));
  const together = joined(inOrderDone(chosen));
  return (
    <Card aria-label="Method card">
      <Line>
        <Title>{chosen.length} repairs</Title>
        <Caption>{letters}</Caption>
        <Gap />
        <Push
          isDisabled={!canJoin(chosen)}
          onPress={() => {
            if (!together) return;
            bench.set({ also: [] });
            void bench.change('Join repairs', together);
          }}
        >
          Join into one
        </Push>
        <Push
          onPress={() => {
            const on = chosen.some((r) => !r.enabled);
            const edits = chosen.map((r) => repairEdit({ ...r, enabled: on }));
            void bench.change(on ? 'Switch on repairs' : 'Switch off repairs', edits);
          }}
        >
          Switch off or on
        </Push>
        <Push
          onPress={() => {
            bench.set({ selected: null, also: [] });
            void bench.change(
              'Delete repairs',
              chosen.map((r) => ({ entity: 'repair', id: r.id, after: null })),
            );
          }}
        >
          Delete
        </Push>
        <Push onPress={() => bench.set({ selected: null, also: [] })}>Done</Push>
      </Line>
      <Dial
        label="Strength of all"
        least={0}
        most={100}
        unit="%"
        hint="Usual: 75-80 % for lines near eyes, 70 % for patches"
        value={Math.round(strength * 100)}
        onChange={(v) => {
          setHeld(v / 100);
          bench.tryOut(withStrength(v));
        }}
        onDone={(v) =>
          void bench.change('Set strength of several', withStrength(v)).then(() => setHeld(null))
        }
      />
      {!canJoin(chosen) && (
        <Caption>
          Repairs of one method, one layer and one step from site to donor can be joined.
        </Caption>
      )}
    </Card>
  );
}

function inOrderDone(repairs: readonly Repair[]): Repair[] {
  return [...repairs].sort((a, b) => a.position - b.position);
}
