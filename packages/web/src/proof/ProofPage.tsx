import { useCallback, useMemo } from 'react';
import styled from 'styled-components';
import { Proof } from '../bench/docket/Proof.js';
import { useBenchState } from '../bench/model/context.js';
import { NoticeLine } from '../bench/NoticeLine.js';
import { Middle, Room } from '../bench/Room.js';
import { Sight } from '../bench/sight/Sight.js';
import { look } from '../look/theme.js';
import { useHeldKey } from '../look/useHeldKey.js';
import { CompareStrip } from './CompareStrip.js';
import { createProof, ProofContext, useProofStore } from './model.js';
import { Sweep } from './sweep/Sweep.js';
import { CompareView } from './view/CompareView.js';

/** The proof: what gives repairs away, the sweep at 1:1, and before and after in register. */
export function ProofPage() {
  const proof = useMemo(createProof, []);
  return (
    <ProofContext value={proof}>
      <Room kind="proof" sides={[280, 232]} narrow={[220, 150]}>
        <Inside />
      </Room>
    </ProofContext>
  );
}

function Inside() {
  const proof = useProofStore();
  useHeldKey(
    'v',
    useCallback((received: boolean) => proof.setState({ way: 'flip', received }), [proof]),
  );
  const mended = useBenchState((s) => (s.records?.repairs.length ?? 0) > 0);
  return (
    <>
      <Side aria-label="Proof of the picture">
        <Sweep />
        <Proof />
        {!mended && (
          <p>
            Nothing is mended yet. Once there are repairs, they are measured for what gives them
            away.
          </p>
        )}
      </Side>
      <Middle>
        <CompareView />
        <CompareStrip />
        <NoticeLine />
      </Middle>
      <Sight />
    </>
  );
}

const Side = styled.aside`
  min-height: 0;
  overflow: auto;
  border-right: 1px solid ${look.hairline};
  > p {
    padding: 12px 20px;
    color: ${look.inkSoft};
  }
`;
