import { useState } from 'react';
import styled from 'styled-components';
import { setHouse, useHouse } from '../api/work.js';
import { Push, Quiet } from '../look/parts.js';
import { look } from '../look/theme.js';
import type { WorkRoom } from './clock.js';
import { useWorkClock, workClock } from './useWorkClock.js';

interface RestProps {
  readonly pictureId: string;
  readonly room: WorkRoom;
}

/** Counts the working time, and calls for a break when it is due. */
export function RestReminder({ pictureId, room }: RestProps) {
  const worked = useWorkClock(pictureId, room);
  const { data: house } = useHouse();
  const [put, setPut] = useState(false);
  if (!house?.rest || worked < house.rest) {
    if (put) setPut(false);
    return null;
  }
  if (put) return null;
  const later = (): void => {
    workClock()?.rested();
    setPut(true);
  };
  return (
    <Line role="status">
      <p>{house.rest} minutes at it: rest eyes and hand for a moment. Everything is saved.</p>
      <Push onPress={later}>Thank you</Push>
      <Quiet onPress={() => void setHouse({ ...house, rest: null })}>Do not remind me</Quiet>
    </Line>
  );
}

const Line = styled.div`
  position: fixed;
  left: 50%;
  bottom: 16px;
  transform: translateX(-50%);
  z-index: 15;
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 10px 14px;
  background: ${look.paper};
  border: 1px solid ${look.done};
  border-left-width: 4px;
  border-radius: ${look.corner};
`;
