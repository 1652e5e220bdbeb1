import { Menu, MenuItem } from 'react-aria-components';
import styled from 'styled-components';
import { look } from './theme.js';

/** A menu's sheet of paper. */
export const List = styled(Menu)`
  background: ${look.paperHigh};
  border: 1px solid ${look.hairline};
  border-radius: ${look.corner};
  padding: 4px;
  min-width: 180px;
  max-height: calc(100vh - 160px);
  overflow: auto;
  outline: none;
`;

/** One line of a menu. */
export const Item = styled(MenuItem)`
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 5px 10px;
  outline: none;
  cursor: default;
  &[data-focused] {
    background: ${look.paperDeep};
  }
  &[data-disabled] {
    color: #8b8f8a;
  }
`;
