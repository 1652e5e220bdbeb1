import styled from 'styled-components';

/** A small white thing to drag. */
export const Handle = styled.rect`
  fill: #fff;
  stroke: #1f2326;
  stroke-width: 1.2;
  pointer-events: all;
  cursor: grab;
`;
