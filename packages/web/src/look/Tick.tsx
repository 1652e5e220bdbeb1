import type { ReactNode } from 'react';
import { Checkbox } from 'react-aria-components';
import styled from 'styled-components';
import { look } from './theme.js';

interface TickProps {
  readonly isSelected: boolean;
  readonly children: ReactNode;
  onChange(on: boolean): void;
}

/** Something that is ticked or not. */
export function Tick({ children, ...rest }: TickProps) {
  return (
    <Box {...rest}>
      <i aria-hidden />
      {children}
    </Box>
  );
}

const Box = styled(Checkbox)`
  display: flex;
  align-items: center;
  gap: 8px;
  i {
    flex-shrink: 0;
    width: 14px;
    height: 14px;
    border: 1px solid ${look.inkSoft};
    border-radius: 2px;
  }
  &[data-selected] i {
    background: ${look.done};
    border-color: ${look.done};
    box-shadow: inset 0 0 0 2px ${look.paper};
  }
  &[data-focus-visible] i {
    outline: 2px solid ${look.done};
    outline-offset: 1px;
  }
`;
