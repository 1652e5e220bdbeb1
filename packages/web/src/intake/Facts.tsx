import { bytesOf, colourChannels, printSize } from '@tersum/core';
import type { Picture } from '@tersum/document';
import { useEffect, useState } from 'react';
import type { z } from 'zod';
import type { DetailAnswerSchema } from '@tersum/document';
import styled from 'styled-components';
import { messageOf } from '../api/client.js';
import { measureDetail, setDensity } from '../api/finish.js';
import { useBench } from '../bench/model/context.js';
import { Caption, Figure, Push } from '../look/parts.js';
import { look } from '../look/theme.js';
import { ReferenceLink } from '../reference/ReferenceLink.js';

type Detail = z.infer<typeof DetailAnswerSchema>;

const DENSITIES = [
  [300, 'in the hand'],
  [240, 'good'],
  [150, 'on a wall'],
] as const;

/** What the file is, how large a print it makes, and how much its pixels really hold. */
export function Facts({ picture }: { readonly picture: Picture }) {
  const { id, width, height, bits, channels, ppi, profile, format } = picture;
  const detail = useDetail(id);
  const size = ppi ? printSize(width, height, ppi) : null;
  const pair = ([a, b]: readonly [number, number], digits: number): string =>
    `${a.toFixed(digits)} × ${b.toFixed(digits)}`;
  return (
    <Part aria-label="Facts">
      <h2>As received</h2>
      <Rows>
        <dt>Pixels</dt>
        <dd>
          {width} × {height}
        </dd>
        <dt>File</dt>
        <dd>
          {format.toUpperCase()}, {bits} bits, {colourChannels(channels) === 3 ? 'colour' : 'grey'}
        </dd>
        <dt>Profile</dt>
        <dd>{profile ?? 'none, taken as sRGB'}</dd>
        <dt>Samples</dt>
        <dd>{(bytesOf(width, height, channels, bits) / 1e6).toFixed(1)} MB</dd>
        {size && (
          <>
            <dt>Print</dt>
            <dd>{pair(size.mm, 1)} mm</dd>
            <dt />
            <dd>{pair(size.inches, 2)} in</dd>
          </>
        )}
      </Rows>
      <Density key={ppi} picture={picture} />
      <h2>
        Prints <ReferenceLink to="print">how</ReferenceLink>
      </h2>
      <Rows>
        {DENSITIES.map(([density, words]) => (
          <Line key={density}>
            <dt>
              {density} ppi <Caption>{words}</Caption>
            </dt>
            <dd data-whole>{pair(printSize(width, height, density).mm, 0)} mm</dd>
          </Line>
        ))}
      </Rows>
      <h2>Detail</h2>
      {!detail && <Caption role="status">Measuring the spectrum …</Caption>}
      {detail && <DetailLine detail={detail} ppi={ppi} />}
    </Part>
  );
}

function DetailLine({ detail, ppi }: { readonly detail: Detail; readonly ppi: number | null }) {
  const { reach, interpolated } = detail;
  const share = Math.round(100 * reach);
  if (!interpolated)
    return <p>There is detail or grain down to the single pixel: the density is real.</p>;
  return (
    <Warned role="alert">
      There is nothing finer than {share} % of what the pixels could hold
      {ppi ? `: of ${Math.round(ppi)} ppi about ${Math.round(reach * ppi)} are real` : ''}. The rest
      was interpolated, or the lens was soft. Scan again, or work at a smaller size.
    </Warned>
  );
}

/** The print's real density, from its width where the file does not know. */
function Density({ picture }: { readonly picture: Picture }) {
  const { bench } = useBench();
  const { ppi, width } = picture;
  const [text, setText] = useState(ppi ? String(Math.round(10 * ppi) / 10) : '');
  const [unit, setUnit] = useState<'ppi' | 'mm'>('ppi');
  const value = Number(text.replace(',', '.'));
  const next = unit === 'ppi' ? value : (width * 25.4) / value;
  const fits = Number.isFinite(next) && next >= 1 && next <= 9600;
  const same = ppi !== null && Math.abs(next - ppi) < 0.05;
  const set = async (): Promise<void> => {
    try {
      await setDensity(picture.id, Math.round(100 * next) / 100);
      await bench.refresh();
    } catch (error) {
      bench.set({ notice: messageOf(error) });
    }
  };
  return (
    <Asked
      onSubmit={(event) => {
        event.preventDefault();
        if (fits && !same) void set();
      }}
    >
      <input
        aria-label="Density or width of the print"
        inputMode="decimal"
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <select
        aria-label="Unit"
        value={unit}
        onChange={(event) => setUnit(event.target.value as 'ppi' | 'mm')}
      >
        <option value="ppi">ppi</option>
        <option value="mm">mm wide</option>
      </select>
      <Push type="submit" isDisabled={!fits || same}>
        Set
      </Push>
      {!ppi && <Caption>The file does not say. Give its ppi, or the print’s width.</Caption>}
      {unit === 'mm' && fits && (
        <Caption>
          makes <Figure>{next.toFixed(0)}</Figure> ppi
        </Caption>
      )}
    </Asked>
  );
}

function useDetail(id: string): Detail | null {
  const [detail, setDetail] = useState<Detail | null>(null);
  useEffect(() => {
    let gone = false;
    measureDetail(id).then(
      (measured) => !gone && setDetail(measured),
      () => undefined,
    );
    return () => {
      gone = true;
    };
  }, [id]);
  return detail;
}

const Part = styled.section`
  padding: 14px 16px 24px 20px;
  h2 {
    font-size: 13px;
    font-weight: 600;
    margin: 16px 0 6px;
    display: flex;
    gap: 8px;
    align-items: baseline;
  }
  h2:first-child {
    margin-top: 0;
  }
  p {
    font-size: 12px;
    color: ${look.inkSoft};
  }
`;

const Rows = styled.dl`
  margin: 0;
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 12px;
  dt {
    color: ${look.inkSoft};
  }
  dd {
    margin: 0;
    text-align: right;
    font: 500 12px/1.6 ${look.figures};
  }
  [data-whole] {
    white-space: nowrap;
  }
`;

const Line = styled.div`
  display: contents;
`;

const Warned = styled.div`
  font-size: 12px;
  padding: 8px 10px;
  border-left: 3px solid ${look.todo};
  background: ${look.todoSoft};
`;

const Asked = styled.form`
  display: grid;
  grid-template-columns: 1fr auto auto;
  gap: 6px;
  margin-top: 10px;
  input,
  select {
    min-width: 0;
    border: 1px solid ${look.hairline};
    border-radius: ${look.corner};
    background: ${look.paperHigh};
    padding: 2px 6px;
  }
  ${Caption} {
    grid-column: 1 / -1;
  }
`;
