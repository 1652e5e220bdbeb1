import type { DragEvent, ReactNode } from 'react';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { look } from '../look/theme.js';

interface DropAreaProps {
  readonly children: ReactNode;
  /** Inside another area: takes drops before it and leaves pasting to it. */
  readonly inset?: boolean;
  onFiles(files: readonly File[]): void;
}

/** Takes dropped files, and pasted ones when it is the page's own. */
export function DropArea({ children, inset = false, onFiles }: DropAreaProps) {
  const [over, setOver] = useState(false);
  useEffect(() => {
    if (inset) return;
    const paste = (event: ClipboardEvent): void => {
      const files = [...(event.clipboardData?.files ?? [])];
      if (files.length) onFiles(files);
    };
    window.addEventListener('paste', paste);
    return () => window.removeEventListener('paste', paste);
  }, [inset, onFiles]);

  const withFiles = (event: DragEvent): boolean => event.dataTransfer.types.includes('Files');
  return (
    <Area
      $over={over}
      $inset={inset}
      onDragOver={(event) => {
        if (!withFiles(event)) return;
        event.preventDefault();
        event.stopPropagation();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        if (!withFiles(event)) return;
        event.preventDefault();
        event.stopPropagation();
        setOver(false);
        onFiles([...event.dataTransfer.files]);
      }}
    >
      {children}
    </Area>
  );
}

const Area = styled.div<{ $over: boolean; $inset: boolean }>`
  ${(p) => (p.$inset ? '' : 'min-height: 100%;')}
  box-shadow: ${(p) => (p.$over ? `inset 0 0 0 2px ${look.done}` : 'none')};
`;
