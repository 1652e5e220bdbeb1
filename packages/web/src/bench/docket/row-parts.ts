import styled from 'styled-components';
import { look } from '../../look/theme.js';

/** What a row is about: a line, and a smaller one below it. */
export const Words = styled.span`
  flex: 1;
  min-width: 0;
  display: grid;
  span,
  small {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  small {
    font-size: 11px;
    color: ${look.inkSoft};
    &[data-alarm='true'] {
      color: ${look.todo};
      font-weight: 600;
    }
  }
`;

/** Figures of a row, one below the other. */
export const Figures = styled.span`
  display: grid;
  justify-items: end;
  color: ${look.inkSoft};
  span {
    font-size: 11px;
  }
`;
