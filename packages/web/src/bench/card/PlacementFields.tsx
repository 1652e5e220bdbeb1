import { SCALE_LIMITS } from '@tersum/core';
import type { Donor, Method, Repair } from '@tersum/document';
import { FlipHorizontal2, FlipVertical2 } from 'lucide-react';
import { useState } from 'react';
import { Input, Label, NumberField } from 'react-aria-components';
import styled from 'styled-components';
import { Toggle } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { useBench } from '../model/context.js';
import { donorOf, withDonor } from '../model/donors.js';
import { repairEdit } from '../model/repairs.js';

/** Where the donor stands and how it is turned, scaled and mirrored, in figures. */
export function PlacementFields({ repair }: { readonly repair: Repair }) {
  const { bench } = useBench();
  const donor = donorOf(repair);
  if (!donor) return null;
  const set = (label: string, change: Partial<Donor>): void =>
    void bench.change(label, [repairEdit(withDonor(repair, change))]);
  return (
    <>
      <Figures
        label="Across"
        unit="px"
        value={donor.dx}
        step={0.25}
        onSet={(dx) => set('Move a donor', { dx })}
      />
      <Figures
        label="Down"
        unit="px"
        value={donor.dy}
        step={0.25}
        onSet={(dy) => set('Move a donor', { dy })}
      />
      <Figures
        label="Turn"
        unit="°"
        title="Keys: [ and ]; with Shift in steps of 15°"
        value={donor.turn}
        least={-180}
        most={180}
        step={0.1}
        onSet={(turn) => set('Turn a donor', { turn })}
      />
      <Figures
        label="Scale"
        unit="%"
        title="Keys: - and =; with Shift in steps of 10 %"
        value={Math.round(donor.scale * 1000) / 10}
        least={SCALE_LIMITS.least * 100}
        most={SCALE_LIMITS.most * 100}
        step={0.1}
        onSet={(scale) => set('Scale a donor', { scale: scale / 100 })}
      />
      {repair.method.kind === 'piece' && <Lean repair={repair} piece={repair.method} />}
      <Flip
        aria-label="Mirror left and right"
        isSelected={donor.mirrorX}
        onChange={(mirrorX) => set('Mirror a donor', { mirrorX })}
      >
        <FlipVertical2 size={15} aria-hidden />
      </Flip>
      <Flip
        aria-label="Mirror top and bottom"
        isSelected={donor.mirrorY}
        onChange={(mirrorY) => set('Mirror a donor', { mirrorY })}
      >
        <FlipHorizontal2 size={15} aria-hidden />
      </Flip>
    </>
  );
}

/** How far the upright sides of a piece lean. */
function Lean({
  repair,
  piece,
}: {
  readonly repair: Repair;
  readonly piece: Extract<Method, { kind: 'piece' }>;
}) {
  const { bench } = useBench();
  return (
    <Figures
      label="Lean"
      unit="°"
      value={piece.skew}
      least={-60}
      most={60}
      step={0.5}
      onSet={(skew) =>
        void bench.change('Lean a piece', [repairEdit({ ...repair, method: { ...piece, skew } })])
      }
    />
  );
}

interface FiguresProps {
  readonly label: string;
  readonly unit: string;
  readonly title?: string;
  readonly value: number;
  readonly least?: number;
  readonly most?: number;
  readonly step: number;
  onSet(value: number): void;
}

function Figures({ label, unit, title, value, least, most, step, onSet }: FiguresProps) {
  const [typed, setTyped] = useState(value);
  const [seen, setSeen] = useState(value);
  if (seen !== value) {
    setSeen(value);
    setTyped(value);
  }
  return (
    <Field
      value={typed}
      step={step}
      {...(least === undefined ? {} : { minValue: least })}
      {...(most === undefined ? {} : { maxValue: most })}
      formatOptions={{ maximumFractionDigits: 2, useGrouping: false }}
      onChange={(v) => {
        if (Number.isNaN(v) || v === value) return;
        setTyped(v);
        onSet(v);
      }}
    >
      <Label>{label}</Label>
      <Input title={title} />
      <span>{unit}</span>
    </Field>
  );
}

const Field = styled(NumberField)`
  display: inline-flex;
  align-items: center;
  gap: 5px;
  font-size: 12px;
  color: ${look.inkSoft};
  input {
    width: 52px;
    min-height: 26px;
    text-align: right;
    padding: 0 5px;
    border: 1px solid ${look.hairline};
    border-radius: ${look.corner};
    background: ${look.paperHigh};
    color: ${look.ink};
    font: 500 12px ${look.figures};
    font-variant-numeric: tabular-nums;
  }
`;

const Flip = styled(Toggle)`
  padding: 0 7px;
`;
