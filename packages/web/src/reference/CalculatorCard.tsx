import { useState } from 'react';
import { Input, Label, NumberField } from 'react-aria-components';
import styled from 'styled-components';
import { Figure } from '../look/parts.js';
import { look } from '../look/theme.js';
import type { Calculator } from './calculators.js';

interface CardProps {
  readonly calculator: Calculator;
  /** Whether somebody was led here. */
  readonly isCalled: boolean;
}

/** One rule with its figures, reckoned while they are typed. */
export function CalculatorCard({ calculator, isCalled }: CardProps) {
  const { id, title, rule, source, entries } = calculator;
  const [values, setValues] = useState(() => entries.map((e) => e.value));
  return (
    <Card id={id} aria-label={title} data-called={isCalled}>
      <h2>{title}</h2>
      <p>{rule}</p>
      <Sides>
        <div>
          {entries.map((entry, k) => (
            <Row
              key={entry.name}
              aria-label={`${title}: ${entry.name}`}
              value={values[k]!}
              minValue={entry.least}
              maxValue={entry.most}
              step={entry.step}
              formatOptions={{ useGrouping: false, maximumFractionDigits: 2 }}
              onChange={(v) => {
                if (!Number.isNaN(v)) setValues(values.map((old, i) => (i === k ? v : old)));
              }}
            >
              <Label>{entry.name}</Label>
              <Input />
              <span>{entry.unit}</span>
            </Row>
          ))}
        </div>
        <dl aria-live="polite">
          {calculator.outcomes(values).map(({ name, value }, k) => (
            <div key={k}>
              <dt>{name}</dt>
              <dd>
                <Figure>{value}</Figure>
              </dd>
            </div>
          ))}
        </dl>
      </Sides>
      <small>{source}</small>
    </Card>
  );
}

const Card = styled.section`
  background: ${look.paperHigh};
  border: 1px solid ${look.hairline};
  border-radius: ${look.corner};
  padding: 14px 16px 12px;
  scroll-margin-top: 16px;
  display: flex;
  flex-direction: column;
  &[data-called='true'] {
    border-color: ${look.done};
    box-shadow: inset 3px 0 0 ${look.done};
  }
  h2 {
    font-size: 15px;
    font-weight: 600;
    margin-bottom: 4px;
  }
  p {
    font-size: 12px;
    color: ${look.inkSoft};
    margin-bottom: 10px;
  }
  small {
    margin-top: auto;
    padding-top: 10px;
    font-size: 11px;
    color: ${look.inkSoft};
  }
`;

const Sides = styled.div`
  display: grid;
  grid-template-columns: 11fr 10fr;
  gap: 16px;
  dl {
    margin: 0;
    border-left: 1px solid ${look.hairline};
    padding-left: 16px;
  }
  dl > div {
    display: flex;
    justify-content: space-between;
    gap: 8px;
    line-height: 22px;
  }
  dt {
    color: ${look.inkSoft};
    font-size: 12px;
  }
  dd {
    margin: 0;
  }
`;

const Row = styled(NumberField)`
  display: grid;
  grid-template-columns: 1fr 68px 22px;
  align-items: center;
  gap: 6px;
  margin-bottom: 4px;
  label {
    font-size: 12px;
    color: ${look.inkSoft};
  }
  input {
    width: 100%;
    border: 1px solid ${look.hairline};
    border-radius: ${look.corner};
    background: #fff;
    padding: 1px 6px;
    text-align: right;
    font: 500 12px/1.5 ${look.figures};
  }
  span {
    font-size: 11px;
    color: ${look.inkSoft};
  }
`;
