import type { DocketFinding } from '@tersum/document';
import { useEffect, useRef } from 'react';
import styled from 'styled-components';
import { Figure, Push } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { useBench, useBenchState } from '../model/context.js';
import { isLong, liesAtEdge, measuresOf, placeOfFinding } from '../model/findings.js';
import { FINDING_NAMES } from '@tersum/document';
import { timeOf } from '../../look/time.js';
import { dismissFinding, mendFindings, showFinding, takeOutFinding } from '../model/survey-acts.js';
import { PlacePair } from './PlacePair.js';
import { Figures, Words } from './row-parts.js';

interface FindingRowProps {
  readonly finding: DocketFinding;
  /** What is shown when this one has been dealt with. */
  readonly next: DocketFinding | undefined;
  readonly mended?: boolean;
}

/** One finding: its measures; opened, its advice and what can be done. */
export function FindingRow({ finding, next, mended = false }: FindingRowProps) {
  const { bench } = useBench();
  const { isOpen, ppi } = useBenchState((s) => ({
    isOpen: s.finding === finding.id,
    ppi: s.records?.picture.ppi ?? null,
  }));
  const row = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (isOpen) row.current?.scrollIntoView({ block: 'nearest' });
  }, [isOpen]);
  const { advice, kind, contrast, by } = finding;
  const [, one] = FINDING_NAMES[kind];
  return (
    <Row ref={row} data-open={isOpen}>
      <Go
        type="button"
        aria-expanded={isOpen}
        onClick={() => (isOpen ? bench.set({ finding: null }) : showFinding(bench, finding))}
      >
        <PlacePair {...placeOfFinding(finding)} repaired={mended} />
        <Words>
          <span>
            {one}
            {!mended && liesAtEdge(finding) && ' at an edge'}
            {by === 'hand' && <small> added</small>}
            {mended && <small> mended</small>}
          </span>
          <small>
            {isLong(kind)
              ? `${Math.max(1, Math.round(finding.size))} px wide`
              : `contrast ${contrast.toFixed(0)}`}
          </small>
        </Words>
        <Figures>
          {measuresOf(isLong(kind) ? finding.extent : finding.size, ppi).map((measure) => (
            <Figure key={measure}>{measure}</Figure>
          ))}
        </Figures>
      </Go>
      {isOpen && (
        <Inside>
          <p>
            <b>{advice.method}</b>, {advice.width} px: {advice.reason}.
          </p>
          <p>
            Contrast <Figure>{contrast.toFixed(0)}</Figure>, by hand{' '}
            <Figure>{timeOf(advice.byHand)}</Figure>, donor: {advice.donor}.
          </p>
          <Acts>
            {mended ? (
              <>
                <Push onPress={() => void takeOutFinding(bench, finding, true)}>
                  Open by itself
                </Push>
                <Push onPress={() => void takeOutFinding(bench, finding, false)}>Leave out</Push>
              </>
            ) : (
              <>
                <Push onPress={() => void mendFindings(bench, [finding])}>Mend</Push>
                <Push onPress={() => void dismissFinding(bench, finding, true, next)}>
                  Keep as it is <kbd>K</kbd>
                </Push>
              </>
            )}
          </Acts>
        </Inside>
      )}
    </Row>
  );
}

const Row = styled.div`
  content-visibility: auto;
  contain-intrinsic-size: auto 44px;
  &[data-open='true'] {
    background: ${look.paperHigh};
  }
`;

const Go = styled.button`
  width: 100%;
  min-height: 44px;
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 4px 16px 4px 15px;
  border: 0;
  background: none;
  text-align: left;
  font-size: 12px;
  &:hover {
    background: ${look.paperHigh};
  }
  small {
    color: ${look.inkSoft};
    font-size: 11px;
  }
`;

const Inside = styled.div`
  display: grid;
  gap: 5px;
  padding: 2px 16px 10px 20px;
  font-size: 12px;
  color: ${look.inkSoft};
  b {
    color: ${look.ink};
    font-weight: 600;
  }
`;

const Acts = styled.div`
  display: flex;
  gap: 6px;
  margin-top: 3px;
  kbd {
    font: 500 11px ${look.figures};
    color: ${look.inkSoft};
  }
`;
