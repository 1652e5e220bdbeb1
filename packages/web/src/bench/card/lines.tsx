import styled from 'styled-components';
import { look } from '../../look/theme.js';

/** The sheet below the table. */
export const Card = styled.section`
  background: ${look.paper};
  border-top: 1px solid ${look.hairline};
  padding: 8px 16px 10px;
  display: grid;
  gap: 6px;
`;

/** One line of the card. */
export const Line = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: 30px;
  min-width: 0;
  & > span {
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

export const Title = styled.h2`
  font-size: 14px;
  font-weight: 600;
  white-space: nowrap;
`;

export const Gap = styled.div`
  flex: 1;
`;
