import type { BlockFacts } from '@tersum/core';
import type { Picture } from '@tersum/document';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { messageOf } from '../api/client.js';
import { measureBlocks } from '../api/finish.js';
import { useBench, useBenchState } from '../bench/model/context.js';
import { Dial } from '../look/Dial.js';
import { Caption, Push, Quiet, Warning } from '../look/parts.js';
import { look } from '../look/theme.js';
import { PartView } from './PartView.js';
import { prepareAs } from './preparation.js';

/** Strength that is taken at first. */
const FIRST = 1;
/** Side of what is shown of the picture before and after, px. */
const SHOWN = 150;

/** The blocks that a compression with losses left: found, and reduced before anything is repaired. */
export function Blocks({ picture }: { readonly picture: Picture }) {
  const { bench } = useBench();
  const kept = useBenchState((s) => s.records?.preparations[0]?.blocks ?? null);
  const version = useBenchState((s) => s.view?.version ?? 0);
  const [facts, setFacts] = useState<BlockFacts | null | 'waiting'>('waiting');
  const [problem, setProblem] = useState<string | null>(null);
  const [draft, setDraft] = useState<number | null>(null);
  useEffect(() => {
    let here = true;
    measureBlocks(picture.id).then(
      (found) => here && setFacts(found),
      (error: unknown) => here && setProblem(messageOf(error)),
    );
    return () => void (here = false);
  }, [picture.id]);
  const reduce = (strength: number): void => {
    const grid = kept ?? (facts !== 'waiting' ? facts : null);
    if (!grid) return;
    const { x, y, quality } = grid;
    void prepareAs(bench, { blocks: { x, y, quality, strength } }, 'Reduce blocks');
  };
  if (problem) return <Warning>{problem}</Warning>;
  if (facts === 'waiting') return <Caption role="status">Looking for blocks …</Caption>;
  if (!facts && !kept) return <Caption>No blocks of a compression show.</Caption>;
  const middle = {
    x: Math.max(0, (picture.width - SHOWN) >> 1),
    y: Math.max(0, (picture.height - SHOWN) >> 1),
    width: Math.min(SHOWN, picture.width),
    height: Math.min(SHOWN, picture.height),
  };
  return (
    <Row>
      <div>
        <p>
          Compressed with losses, quality about {(kept ?? facts)!.quality}: its blocks of 8 px show.
          They are reduced before anything is repaired, so that no repair copies them.
        </p>
        {kept ? (
          <>
            <Dial
              label="Strength"
              unit="%"
              least={0}
              most={100}
              value={Math.round(100 * (draft ?? kept.strength))}
              onChange={(v) => setDraft(v / 100)}
              onDone={(v) => {
                setDraft(null);
                reduce(v / 100);
              }}
            />
            <Quiet onPress={() => void prepareAs(bench, { blocks: null }, 'Leave the blocks')}>
              Leave the blocks
            </Quiet>
          </>
        ) : (
          <Push onPress={() => reduce(FIRST)}>Reduce blocks</Push>
        )}
      </div>
      <PartView title="As received" id={picture.id} rect={middle} state="received" version={0} />
      {kept && (
        <PartView title="Prepared" id={picture.id} rect={middle} state="mended" version={version} />
      )}
    </Row>
  );
}

const Row = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: 16px;
  align-items: start;
  padding: 10px 12px;
  background: ${look.paperHigh};
  border: 1px solid ${look.hairline};
  border-radius: ${look.corner};
  p {
    margin-bottom: 10px;
    max-width: 46ch;
    color: ${look.inkSoft};
  }
`;
