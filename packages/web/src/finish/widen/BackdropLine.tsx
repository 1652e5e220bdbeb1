import type { Point } from '@tersum/core';
import type { PictureRecords } from '@tersum/document';
import { useState } from 'react';
import { messageOf } from '../../api/client.js';
import { findBackdropEnd } from '../../api/finish.js';
import { Caption, Push, Warning } from '../../look/parts.js';
import { useFinish } from '../model/context.js';
import { backdropEdits } from './backdrop.js';

interface BackdropLineProps {
  readonly records: PictureRecords;
  readonly subject: readonly (readonly Point[])[];
}

/** Makes the backdrop reach the edges where it is too narrow for the frame. */
export function BackdropLine({ records, subject }: BackdropLineProps) {
  const { bench } = useFinish();
  const [state, setState] = useState<'idle' | 'busy' | 'reaches' | { filled: number }>('idle');
  const [problem, setProblem] = useState<string | null>(null);
  const extend = async (): Promise<void> => {
    setProblem(null);
    setState('busy');
    try {
      const beyond = await findBackdropEnd(records.picture.id);
      if (!beyond.length) return setState('reaches');
      await bench.change('Extend the backdrop', backdropEdits(records, beyond, subject));
      setState({ filled: beyond.length });
    } catch (error) {
      setState('idle');
      setProblem(messageOf(error));
    }
  };
  return (
    <>
      <Push isDisabled={state === 'busy'} onPress={() => void extend()}>
        Extend the backdrop
      </Push>
      <Caption role="status">{wordsOf(state)}</Caption>
      {problem && <Warning>{problem}</Warning>}
    </>
  );
}

function wordsOf(state: 'idle' | 'busy' | 'reaches' | { filled: number }): string {
  if (state === 'idle') return 'For paper or cloth that ends inside the frame.';
  if (state === 'busy') return 'Looking for where it ends…';
  if (state === 'reaches')
    return 'It reaches all edges. Where it does not, outline the gap on the bench and fill it.';
  return state.filled === 1
    ? 'Filled where it ended, on the layer “Backdrop”.'
    : `Filled in ${state.filled} places, on the layer “Backdrop”.`;
}
