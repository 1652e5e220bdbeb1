import { Check, Flag, Wrench } from 'lucide-react';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { messageOf } from '../../api/client.js';
import { sweepFrame, useSweep } from '../../api/proof.js';
import { GroupHead, Group, Word } from '../../bench/docket/group.js';
import { useBench, useBenchState } from '../../bench/model/context.js';
import { shownCanvas } from '../../bench/model/state.js';
import { Caption, Figure, Push } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { useProofState, useProofStore } from '../model.js';
import { contentOf, FRAME, frameStates, framesOf, nextDue } from './frames.js';

/** ms a frame must have been on screen, whole and sharp, before it counts as looked at. */
const SEEN = 900;

/** The sweep: every frame of the picture at 1:1 in reading order, so that nothing is left unlooked-at. */
export function Sweep() {
  const { bench } = useBench();
  const proof = useProofStore();
  const { frame, complete } = useProofState((s) => s);
  const { pictureId, picture, canvas, view } = useBenchState((s) => ({
    pictureId: s.pictureId,
    picture: s.records?.picture ?? null,
    canvas: s.records && shownCanvas(s, s.records.picture),
    view: s.view,
  }));
  const { data } = useSweep(pictureId);
  const frames = useMemo(() => (canvas ? framesOf(canvas) : []), [canvas]);
  const states = useMemo(
    () => (view && data ? frameStates(frames, view, data.frames) : []),
    [frames, view, data],
  );
  const [seen, setSeen] = useState<number | null>(null);
  const here = frame === null ? undefined : frames[frame];

  const go = useCallback(
    (to: number | null) => {
      proof.setState({ frame: to, ...(to === null ? {} : { way: 'flip', received: false }) });
      setSeen(null);
      // The keys of the sweep are the picture's, not those of the button that began it.
      document.querySelector<HTMLElement>('[data-view="compared"]')?.focus();
      const at = to === null ? undefined : frames[to];
      const { viewport } = bench.store.getState();
      if (at && viewport)
        bench.set({
          tell: null,
          viewport: {
            x: at.x + (at.width - 1) / 2,
            y: at.y + (at.height - 1) / 2,
            zoom: 1,
            turn: 0,
          },
        });
    },
    [bench, proof, frames],
  );
  useEffect(() => {
    if (frame === null || !complete || seen === frame) return;
    const timer = setTimeout(() => setSeen(frame), SEEN);
    return () => clearTimeout(timer);
  }, [frame, complete, seen]);

  const note = useCallback(
    async (state: 'passed' | 'marked') => {
      const current = proof.getState().frame;
      const shown = current === null ? undefined : frames[current];
      if (current === null || !shown || !view || seen !== current) return;
      try {
        await sweepFrame(pictureId, { frame: current, content: contentOf(shown, view), state });
        const after = states.map((s, k) => (k === current ? state : s));
        go(nextDue(after, current));
      } catch (error) {
        bench.set({ notice: messageOf(error) });
      }
    },
    [bench, proof, frames, states, view, seen, pictureId, go],
  );

  useEffect(() => {
    if (frame === null) return;
    const down = (event: KeyboardEvent): void => {
      if ((event.target as HTMLElement).closest('input, textarea, [role="dialog"]')) return;
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      const onButton = (event.target as HTMLElement).closest('button, a') !== null;
      if (event.key === 'Enter' && !onButton) void note('passed');
      else if (event.key.toLowerCase() === 'm') void note('marked');
      else if (event.key === 'ArrowRight') go(Math.min(frames.length - 1, frame + 1));
      else if (event.key === 'ArrowLeft') go(Math.max(0, frame - 1));
      else if (event.key === 'Escape') go(null);
      else return;
      event.preventDefault();
    };
    window.addEventListener('keydown', down);
    return () => window.removeEventListener('keydown', down);
  }, [frame, frames.length, go, note]);

  if (!picture || !canvas) return null;
  const due = states.filter((s) => s === 'due' || s === 'again').length;
  const marked = states.filter((s) => s === 'marked').length;
  const columns = Math.ceil(canvas.width / FRAME.width);
  const ready = frame !== null && seen === frame;
  return (
    <Group aria-label="Sweep">
      <GroupHead>
        <h3>Sweep</h3>
        <span>
          <Figure>{frames.length - due}</Figure> of <Figure>{frames.length}</Figure> seen
        </span>
        {frame === null ? (
          <Push isDisabled={!states.length} onPress={() => go(nextDue(states, -1) ?? 0)}>
            {due < frames.length && due > 0 ? 'Go on' : 'Begin'}
          </Push>
        ) : (
          <Push onPress={() => go(null)}>Stop</Push>
        )}
      </GroupHead>
      <Grid style={{ gridTemplateColumns: `repeat(${columns}, 1fr)` }} aria-label="Frames">
        {states.map((state, k) => (
          <Cell
            key={k}
            type="button"
            data-state={state}
            data-here={k === frame}
            aria-label={`Frame ${k + 1}, ${STATE_NAMES[state]}`}
            title={`Frame ${k + 1}: ${STATE_NAMES[state]}`}
            onClick={() => go(k)}
          />
        ))}
      </Grid>
      {here ? (
        <Acts>
          <Push isDisabled={!ready} onPress={() => void note('passed')}>
            <Check size={14} aria-hidden /> Pass
          </Push>
          <Push isDisabled={!ready} onPress={() => void note('marked')}>
            <Flag size={14} aria-hidden /> Mark
          </Push>
          <Mend
            to={`/bench/${picture.id}?at=${Math.round(here.x + here.width / 2)},${Math.round(here.y + here.height / 2)}`}
          >
            <Wrench size={14} aria-hidden /> Mend
          </Mend>
          <Caption>
            {ready ? 'Enter passes, M marks, arrows only look.' : 'Look at the frame first …'}
          </Caption>
        </Acts>
      ) : (
        <Word>
          {due === 0 && states.length
            ? marked
              ? `Every frame was looked at; ${marked} ${marked === 1 ? 'is' : 'are'} marked to be mended.`
              : 'Every frame was looked at and passed.'
            : 'Frame by frame at 1:1. What changes later is due again.'}
        </Word>
      )}
    </Group>
  );
}

const STATE_NAMES = {
  due: 'not looked at yet',
  again: 'changed since, due again',
  passed: 'passed',
  marked: 'marked',
} as const;

const Grid = styled.div`
  display: grid;
  gap: 2px;
  margin: 0 12px 8px 20px;
  max-height: 180px;
  overflow: auto;
`;

const Cell = styled.button`
  height: 14px;
  padding: 0;
  border: 1px solid ${look.hairline};
  border-radius: 2px;
  background: ${look.paperHigh};
  &[data-state='passed'] {
    background: ${look.done};
    border-color: ${look.done};
  }
  &[data-state='marked'] {
    background: repeating-linear-gradient(45deg, ${look.todo} 0 3px, ${look.todoSoft} 3px 6px);
    border-color: ${look.todo};
  }
  &[data-state='again'] {
    border: 2px dashed ${look.todo};
  }
  &[data-here='true'] {
    outline: 2px solid ${look.ink};
  }
`;

const Acts = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  padding: 0 12px 10px 20px;
  ${Caption} {
    flex-basis: 100%;
  }
`;

const Mend = styled(Link)`
  display: inline-flex;
  align-items: center;
  gap: 6px;
  padding: 0 10px;
  min-height: 28px;
  color: ${look.done};
`;
