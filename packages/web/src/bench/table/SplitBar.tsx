import type { PointerEvent } from 'react';
import styled from 'styled-components';
import { look } from '../../look/theme.js';
import { useBench, useBenchState } from '../model/context.js';

const STEP = 0.02;

/** Divider of the split view: as received on the left, as repaired on the right. */
export function SplitBar() {
  const { bench } = useBench();
  const { split, width } = useBenchState((s) => ({ split: s.split, width: s.table.width }));
  if (split === null) return null;
  const move = (share: number): void => bench.set({ split: Math.min(0.98, Math.max(0.02, share)) });
  const drag = (event: PointerEvent<HTMLElement>): void => {
    if (!event.currentTarget.hasPointerCapture(event.pointerId)) return;
    const box = event.currentTarget.parentElement!.getBoundingClientRect();
    move((event.clientX - box.left) / box.width);
  };
  return (
    <Bar
      style={{ left: split * width }}
      role="slider"
      tabIndex={0}
      aria-label="Divider between as received and as repaired"
      aria-valuenow={Math.round(split * 100)}
      aria-valuemin={2}
      aria-valuemax={98}
      onPointerDown={(event) => {
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={(event) => {
        event.stopPropagation();
        drag(event);
      }}
      onPointerUp={(event) => event.stopPropagation()}
      onKeyDown={(event) => {
        if (event.key === 'ArrowLeft') move(split - STEP);
        else if (event.key === 'ArrowRight') move(split + STEP);
        else return;
        event.preventDefault();
      }}
    >
      <span>as received</span>
      <span>as repaired</span>
    </Bar>
  );
}

const Bar = styled.div`
  position: absolute;
  top: 0;
  bottom: 0;
  width: 13px;
  margin-left: -6px;
  cursor: ew-resize;
  &::before {
    content: '';
    position: absolute;
    inset: 0 6px;
    background: ${look.paper};
    box-shadow: 0 0 0 1px ${look.ink};
  }
  span {
    position: absolute;
    top: 10px;
    padding: 1px 7px;
    font-size: 11px;
    white-space: nowrap;
    background: ${look.paper};
    border-radius: ${look.corner};
  }
  span:first-child {
    right: 16px;
  }
  span:last-child {
    left: 16px;
  }
`;
