import type { GreyFacts, Raster } from '@tersum/core';
import type { GreyAnswer } from '@tersum/document';
import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { messageOf } from '../../api/client.js';
import { getPart, measureChannels } from '../../api/finish.js';
import { useBenchState } from '../../bench/model/context.js';
import { Caption, MainPush, Push, Warning } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { useFinish } from '../model/context.js';

const NAMES: Record<GreyFacts['way'], string> = {
  red: 'Red',
  green: 'Green',
  blue: 'Blue',
  luma: 'Plain grey',
  mix: 'Best mix',
};
/** px of the longer side of what is shown. */
const SHOWN = 420;

interface PanelProps {
  /** Called when the picture went on in grey. */
  onGone(): void;
}

/** The channels side by side, measured; one click goes on in grey from one of them, as a step that can be taken back. */
export function ChannelsPanel({ onGone }: PanelProps) {
  const finish = useFinish();
  const picture = useBenchState((s) => s.records?.picture);
  const [choice, setChoice] = useState<GreyAnswer | 'waiting'>('waiting');
  const [part, setPart] = useState<Raster | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    if (!picture) return;
    const gone = new AbortController();
    const { id, width, height } = picture;
    const factor = Math.min(64, Math.max(1, Math.ceil(Math.max(width, height) / SHOWN)));
    Promise.all([
      measureChannels(id),
      getPart(id, { x: 0, y: 0, width, height }, factor, gone.signal),
    ]).then(
      ([measured, shown]) => {
        setChoice(measured);
        setPart(shown);
      },
      (error: unknown) => {
        if (!gone.signal.aborted) setProblem(messageOf(error));
      },
    );
    return () => gone.abort();
  }, [picture]);

  const goOn = (facts: { weights: readonly [number, number, number]; way: GreyFacts['way'] }) => {
    void finish.addActs(
      [{ kind: 'grey', weights: [...facts.weights] }],
      `Go on in grey from ${NAMES[facts.way].toLowerCase()}`,
    );
    onGone();
  };
  return (
    <>
      {problem && <Warning>{problem}</Warning>}
      {choice === 'waiting' && !problem && <Caption role="status">Measuring the channels…</Caption>}
      {choice === null && <Caption>This picture is grey; it has one channel.</Caption>}
      {choice !== null && choice !== 'waiting' && (
        <>
          <Grid>
            {choice.ways.map((facts) => {
              const best = facts.way === choice.best;
              return (
                <Tile key={facts.way} data-best={best}>
                  <strong>
                    {NAMES[facts.way]} {best && <em>advised</em>}
                  </strong>
                  {part && <Grey part={part} weights={facts.weights} />}
                  <dl>
                    <dt>Contrast</dt>
                    <dd>{Math.round(facts.contrast)}</dd>
                    <dt>Noise</dt>
                    <dd>{facts.noise.toFixed(2)}</dd>
                    <dt>Spots per 1000 px</dt>
                    <dd>{facts.damage.toFixed(1)}</dd>
                    <dt>Shares r g b</dt>
                    <dd>{facts.weights.map((w) => Math.round(100 * w)).join(' ')}</dd>
                  </dl>
                  {best ? (
                    <MainPush onPress={() => goOn(facts)}>Go on in grey</MainPush>
                  ) : (
                    <Push onPress={() => goOn(facts)}>Go on in grey</Push>
                  )}
                </Tile>
              );
            })}
          </Grid>
          <Caption>
            {NAMES[choice.best]} is advised. {choice.reason} It becomes a step that can be changed
            or taken away.
          </Caption>
        </>
      )}
    </>
  );
}

/** A part of the picture in grey by shares of its channels. */
function Grey({ part, weights }: { part: Raster; weights: readonly number[] }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const { width, height, channels, data } = part;
    const image = context.createImageData(width, height);
    for (let p = 0; p < width * height; p++) {
      let v = 0;
      for (let c = 0; c < 3; c++) v += weights[c]! * data[p * channels + (channels === 3 ? c : 0)]!;
      image.data.fill(Math.min(255, Math.max(0, v / 257)), 4 * p, 4 * p + 3);
      image.data[4 * p + 3] = 255;
    }
    context.putImageData(image, 0, 0);
  }, [part, weights]);
  return <canvas ref={canvas} width={part.width} height={part.height} />;
}

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 10px;
  margin-bottom: 10px;
`;

const Tile = styled.section`
  display: grid;
  gap: 6px;
  padding: 8px;
  border: 1px solid ${look.hairline};
  border-radius: ${look.corner};
  background: ${look.paperHigh};
  justify-items: start;
  &[data-best='true'] {
    border-color: ${look.done};
    box-shadow: inset 0 0 0 1px ${look.done};
  }
  em {
    font-style: normal;
    font-weight: 400;
    font-size: 12px;
    color: ${look.done};
  }
  canvas {
    width: 100%;
    height: 130px;
    object-fit: contain;
    background: #b1b1b1;
  }
  dl {
    display: grid;
    grid-template-columns: 1fr auto;
    width: 100%;
    font-size: 12px;
    color: ${look.inkSoft};
  }
  dd {
    margin: 0;
    font-family: ${look.figures};
    color: ${look.ink};
  }
`;
