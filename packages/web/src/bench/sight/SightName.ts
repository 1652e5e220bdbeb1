import styled from 'styled-components';
import { Caption } from '../../look/parts.js';

/** Name of a sight, over its picture. */
export const SightName = styled(Caption)`
  padding: 2px 10px;
  display: flex;
  justify-content: space-between;
`;
