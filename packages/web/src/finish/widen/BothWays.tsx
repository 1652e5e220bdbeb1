import type { Sides, WidenWay } from '@tersum/core';
import type { WidenAnswer } from '@tersum/document';
import { Columns2 } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { messageOf } from '../../api/client.js';
import { tryWiden } from '../../api/finish.js';
import { TELL_WORDS } from '../../bench/model/tell-words.js';
import { Caption, Figure, Push, Warning } from '../../look/parts.js';
import { look } from '../../look/theme.js';

interface WaysProps {
  readonly pictureId: string;
  readonly sides: Sides;
  readonly how: WidenWay;
  onChoose(how: WidenWay): void;
}

type Stretching = NonNullable<WidenAnswer['ways'][number]['stretch']>;

const NAMES: Record<WidenWay, string> = { fill: 'Filled', stretch: 'Stretched' };

/** Both ways side by side, small, with what would give each away; the better one first. */
export function BothWays({ pictureId, sides, how, onChoose }: WaysProps) {
  const [answer, setAnswer] = useState<WidenAnswer | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const running = useRef<AbortController | null>(null);
  useEffect(() => () => running.current?.abort(), []);
  const tryBoth = async (): Promise<void> => {
    const abort = new AbortController();
    running.current = abort;
    setBusy(true);
    setProblem(null);
    try {
      const found = await tryWiden(pictureId, sides, abort.signal);
      setAnswer(found);
      onChoose(found.ways[0]!.how);
    } catch (error) {
      if (!abort.signal.aborted) setProblem(messageOf(error));
    } finally {
      setBusy(false);
    }
  };
  if (!answer)
    return (
      <Ask>
        {busy ? (
          <>
            <Push onPress={() => running.current?.abort()}>Cancel</Push>
            <Caption role="status">Trying both ways on a small copy …</Caption>
          </>
        ) : (
          <>
            <Push onPress={() => void tryBoth()}>
              <Columns2 size={14} aria-hidden /> Try both ways
            </Push>
            <Caption>Small, side by side, with what would give each away.</Caption>
          </>
        )}
        {problem && <Warning>{problem}</Warning>}
      </Ask>
    );
  return (
    <Pair role="group" aria-label="Both ways">
      {answer.ways.map(({ how: way, picture, texture, tells, stretch }, k) => (
        <Way key={way} type="button" aria-pressed={way === how} onClick={() => onChoose(way)}>
          <img src={`data:image/jpeg;base64,${picture}`} alt={`${NAMES[way]}, small`} />
          <strong>
            {NAMES[way]} {k === 0 && answer.ways.length > 1 && <em>advised</em>}
          </strong>
          <span>
            Texture <Figure>{texture.toFixed(2)}</Figure>
          </span>
          {tells.slice(0, 3).map(({ kind, value, limit }, i) => (
            <span key={i}>
              {TELL_WORDS[kind].name}{' '}
              <Figure>
                {value.toFixed(kind === 'repeat' ? 0 : 2)} {TELL_WORDS[kind].unit}
              </Figure>{' '}
              <small>limit {limit}</small>
            </span>
          ))}
          {stretch && <StretchFigures {...stretch} />}
          {tells.length === 0 && !stretch?.broken && <span>Nothing gives it away.</span>}
        </Way>
      ))}
      {answer.ways.length === 1 && (
        <Caption>It cannot be stretched: what is kept leaves no background for it.</Caption>
      )}
    </Pair>
  );
}

/** From here on a stretched texture begins to show; common practice, no source. */
const SHOWS = { factor: 2, splices: 2.5 } as const;

/** How far the background is stretched, whether its texture begins to show, and the lines that break. */
function StretchFigures({ factors, splices, broken }: Stretching) {
  const most = Math.max(...Object.values(factors));
  return (
    <>
      <span>
        Stretched <Figure>{most.toFixed(2)}</Figure> times at most
        {(most > SHOWS.factor || splices > SHOWS.splices) && ': texture begins to show'}
      </span>
      <span>
        Broken lines <Figure>{broken}</Figure>
      </span>
    </>
  );
}

const Ask = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
  margin-bottom: 14px;
`;

const Pair = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  margin-bottom: 14px;
`;

const Way = styled.button`
  display: grid;
  grid-template-columns: 124px 1fr;
  column-gap: 12px;
  row-gap: 2px;
  align-content: start;
  padding: 8px;
  text-align: left;
  border: 1px solid ${look.hairline};
  border-radius: ${look.corner};
  background: ${look.paperHigh};
  font-size: 12px;
  &[aria-pressed='true'] {
    border-color: ${look.ink};
    outline: 1px solid ${look.ink};
  }
  img {
    grid-row: 1 / span 8;
    width: 100%;
    height: 124px;
    object-fit: contain;
    background: #b1b1b1;
  }
  > :not(img) {
    grid-column: 2;
  }
  em {
    font-style: normal;
    font-weight: 400;
    color: ${look.done};
  }
  small {
    color: ${look.inkSoft};
  }
`;
