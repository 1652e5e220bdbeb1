import type { GreyFacts, Raster } from '@tersum/core';
import type { GreyAnswer, Picture } from '@tersum/document';
import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { messageOf } from '../api/client.js';
import { getPart, measureChannels } from '../api/finish.js';
import { Caption, MainPush, Push, Warning } from '../look/parts.js';
import { look } from '../look/theme.js';

const NAMES: Record<GreyFacts['way'], string> = {
  red: 'Red',
  green: 'Green',
  blue: 'Blue',
  luma: 'Plain grey',
  mix: 'Best mix',
};
/** px of the longer side of what is shown. */
const SHOWN = 420;

type Weights = readonly [number, number, number];

interface PanelProps {
  readonly picture: Picture;
  /** Shares it is grey by now; null in colour. */
  readonly chosen: Weights | null;
  /** What becomes of a choice, a sentence. */
  readonly note: string;
  /** @param label what the change is called; null weights go back to colour */
  onChoose(weights: Weights | null, label: string): void;
}

/** The channels side by side, measured; one click goes on in grey from one of them. */
export function ChannelsPanel({ picture, chosen: kept, note, onChoose }: PanelProps) {
  const { id, width, height } = picture;
  const [choice, setChoice] = useState<GreyAnswer | 'waiting'>('waiting');
  const [part, setPart] = useState<Raster | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    const gone = new AbortController();
    const factor = Math.min(64, Math.max(1, Math.ceil(Math.max(width, height) / SHOWN)));
    Promise.all([
      measureChannels(id),
      getPart(id, { x: 0, y: 0, width, height }, factor, gone.signal, 'received'),
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
  }, [id, width, height]);

  const goOn = ({ weights, way }: { weights: Weights; way: GreyFacts['way'] }): void =>
    onChoose(weights, `Go on in grey from ${NAMES[way].toLowerCase()}`);
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
              const chosen = kept !== null && facts.weights.every((w, c) => w === kept[c]);
              return (
                <Tile key={facts.way} data-best={kept ? chosen : best}>
                  <strong>
                    {NAMES[facts.way]} {chosen ? <em>chosen</em> : best && <em>advised</em>}
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
                  {chosen ? (
                    <Push onPress={() => onChoose(null, 'Back to colour')}>Back to colour</Push>
                  ) : best && !kept ? (
                    <MainPush onPress={() => goOn(facts)}>Go on in grey</MainPush>
                  ) : (
                    <Push onPress={() => goOn(facts)}>Go on in grey</Push>
                  )}
                </Tile>
              );
            })}
          </Grid>
          <Caption>
            {NAMES[choice.best]} is advised. {choice.reason} {note}
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
