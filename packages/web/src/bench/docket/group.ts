import styled from 'styled-components';
import { look } from '../../look/theme.js';

/** A part of the docket, under a head of its own. */
export const Group = styled.section`
  border-bottom: 1px solid ${look.hairline};
`;

export const GroupHead = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  padding: 8px 12px 8px 20px;
  white-space: nowrap;
  h3 {
    font-size: 13px;
    font-weight: 600;
  }
  span {
    color: ${look.inkSoft};
  }
  > button {
    margin-left: auto;
  }
`;

/** A line of explanation. */
export const Word = styled.p`
  padding: 0 16px 10px 20px;
  color: ${look.inkSoft};
  font-size: 12px;
`;
