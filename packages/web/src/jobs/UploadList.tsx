import { Label, ProgressBar } from 'react-aria-components';
import styled from 'styled-components';
import { Figure, Quiet, Warning } from '../look/parts.js';
import { look } from '../look/theme.js';
import type { Upload } from './uploads.js';

interface UploadListProps {
  readonly uploads: readonly Upload[];
  onCancel(id: number): void;
  onDismiss(id: number): void;
}

/** Files on their way in, and those that could not be taken. */
export function UploadList({ uploads, onCancel, onDismiss }: UploadListProps) {
  return uploads.map((upload) =>
    upload.problem ? (
      <Refused key={upload.id}>
        <span>
          <strong>{upload.name}</strong>: {upload.problem}
        </span>
        <Quiet onPress={() => onDismiss(upload.id)}>Put away</Quiet>
      </Refused>
    ) : (
      <Sending key={upload.id} value={upload.share * 100}>
        <Label>{upload.share < 1 ? `Sending ${upload.name}` : `Reading ${upload.name}`}</Label>
        <Bar>
          <div style={{ width: `${upload.share * 100}%` }} />
        </Bar>
        <Figure>{Math.round(upload.share * 100)} %</Figure>
        <Quiet onPress={() => onCancel(upload.id)}>Cancel</Quiet>
      </Sending>
    ),
  );
}

const Refused = styled(Warning)`
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin-bottom: 12px;
`;

const Sending = styled(ProgressBar)`
  display: grid;
  grid-template-columns: 260px 1fr 6ch auto;
  gap: 12px;
  align-items: center;
  margin-bottom: 12px;
`;

const Bar = styled.div`
  height: 4px;
  background: ${look.paperDeep};
  div {
    height: 100%;
    background: ${look.done};
  }
`;
