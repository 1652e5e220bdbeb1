import { X } from 'lucide-react';
import styled from 'styled-components';
import { Quiet, Warning } from '../look/parts.js';
import { useBench, useBenchState } from './model/context.js';

/** What went wrong last, over the foot of the table, until it is put away. */
export function NoticeLine() {
  const { bench } = useBench();
  const notice = useBenchState((s) => s.notice);
  if (!notice) return null;
  return (
    <Line>
      <span>{notice}</span>
      <Quiet aria-label="Put this notice away" onPress={() => bench.set({ notice: null })}>
        <X size={14} aria-hidden />
      </Quiet>
    </Line>
  );
}

const Line = styled(Warning)`
  position: absolute;
  left: 16px;
  right: 16px;
  top: 16px;
  z-index: 5;
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
`;
