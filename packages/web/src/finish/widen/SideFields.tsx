import type { Sides } from '@tersum/core';
import { memo } from 'react';
import { Group, Input, Label, NumberField } from 'react-aria-components';
import styled from 'styled-components';
import { look } from '../../look/theme.js';

const NAMES: readonly (readonly [keyof Sides, string])[] = [
  ['left', 'Left'],
  ['right', 'Right'],
  ['top', 'Above'],
  ['bottom', 'Below'],
];

interface SideFieldsProps {
  readonly sides: Sides;
  readonly least: number;
  onSides(sides: Sides): void;
}

/** px added to each side, by number; below 0 they are taken away. */
export const SideFields = memo(function SideFields({ sides, least, onSides }: SideFieldsProps) {
  return (
    <Fields>
      {NAMES.map(([side, name]) => (
        <NumberField
          key={side}
          value={sides[side]}
          minValue={least}
          maxValue={20_000}
          formatOptions={{ useGrouping: false, signDisplay: 'negative' }}
          onChange={(v) => !Number.isNaN(v) && onSides({ ...sides, [side]: Math.round(v) })}
        >
          <Label>{name}, px</Label>
          <Group>
            <Input />
          </Group>
        </NumberField>
      ))}
    </Fields>
  );
});

const Fields = styled.div`
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 8px;
  margin-bottom: 12px;
  label {
    font-size: 12px;
    color: ${look.inkSoft};
  }
  input {
    width: 100%;
    min-width: 0;
    min-height: 28px;
    padding: 2px 6px;
    border: 1px solid ${look.hairline};
    border-radius: ${look.corner};
    background: ${look.paperHigh};
    font-family: ${look.figures};
    text-align: right;
  }
`;
