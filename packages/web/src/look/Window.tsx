import type { ReactNode } from 'react';
import { Dialog, Heading, Modal, ModalOverlay } from 'react-aria-components';
import styled from 'styled-components';
import { look } from './theme.js';

interface WindowProps {
  readonly title: string;
  readonly isOpen: boolean;
  readonly width?: number;
  readonly children: ReactNode;
  onClose(): void;
}

/** A sheet of paper over the page; Escape or a click beside it puts it away. */
export function Window({ title, isOpen, width = 440, children, onClose }: WindowProps) {
  return (
    <Shade isOpen={isOpen} isDismissable onOpenChange={(open) => !open && onClose()}>
      <Modal>
        <Sheet style={{ width }}>
          <Heading slot="title">{title}</Heading>
          {children}
        </Sheet>
      </Modal>
    </Shade>
  );
}

const Shade = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: 20;
  display: grid;
  place-items: center;
  background: rgb(31 35 38 / 45%);
`;

const Sheet = styled(Dialog)`
  max-width: calc(100vw - 32px);
  max-height: calc(100vh - 64px);
  overflow: auto;
  background: ${look.paper};
  border: 1px solid ${look.hairline};
  border-radius: ${look.corner};
  padding: 20px 24px 24px;
  h2 {
    font-size: 18px;
    font-weight: 600;
    margin-bottom: 16px;
  }
`;

/** A label over its field. */
export const Field = styled.label`
  display: grid;
  gap: 4px;
  margin-bottom: 14px;
  > span {
    font-size: 12px;
    color: ${look.inkSoft};
  }
  em {
    font-style: normal;
    color: ${look.todo};
    font-size: 12px;
  }
  input,
  textarea,
  select {
    border: 1px solid ${look.hairline};
    border-radius: ${look.corner};
    background: ${look.paperHigh};
    padding: 6px 8px;
    min-height: 32px;
    width: 100%;
  }
`;

export const Actions = styled.div`
  display: flex;
  flex-wrap: wrap;
  justify-content: flex-end;
  gap: 8px;
  margin-top: 20px;
`;
