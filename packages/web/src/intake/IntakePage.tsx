import { Crop, Scissors } from 'lucide-react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useBench, useBenchState } from '../bench/model/context.js';
import { NoticeLine } from '../bench/NoticeLine.js';
import { Room } from '../bench/Room.js';
import { look } from '../look/theme.js';
import { CautionNotes } from '../reference/CautionNotes.js';
import { Blocks } from './Blocks.js';
import { ChannelsPanel } from './ChannelsPanel.js';
import { Facts } from './Facts.js';
import { prepareAs } from './preparation.js';
import { Use } from './Use.js';

/** The intake: what was received, what its pixels hold, which channel is clearest, and what it is meant for. */
export function IntakePage() {
  return (
    <Room kind="intake" sides={[280, 260]} narrow={[240, 232]}>
      <Inside />
    </Room>
  );
}

function Inside() {
  const { bench } = useBench();
  const picture = useBenchState((s) => s.records?.picture ?? null);
  const grey = useBenchState((s) => s.records?.preparations[0]?.grey ?? null);
  return (
    <>
      <Side aria-label="Facts of the picture">{picture && <Facts picture={picture} />}</Side>
      <Middle>
        <CautionNotes place="intake" />
        <Ways aria-label="Before repairs">
          {picture && (
            <>
              <Link to={`/finish/${picture.id}?part=frame`}>
                <Crop size={14} aria-hidden /> Straighten and crop
              </Link>
              <Link to={`/finish/${picture.id}?part=frame`}>
                <Scissors size={14} aria-hidden /> Split a bed of several prints
              </Link>
            </>
          )}
        </Ways>
        <h2>Blocks</h2>
        {picture && <Blocks picture={picture} />}
        <h2>Channels side by side</h2>
        {picture && (
          <ChannelsPanel
            picture={picture}
            chosen={grey}
            note="Repairs lie on the grey picture; it can be changed, or taken back to colour, at any time."
            onChoose={(weights, label) => void prepareAs(bench, { grey: weights }, label)}
          />
        )}
        <NoticeLine />
      </Middle>
      <Side aria-label="What it is meant for" data-right>
        {picture && <Use picture={picture} />}
      </Side>
    </>
  );
}

const Side = styled.aside`
  min-height: 0;
  overflow: auto;
  border-right: 1px solid ${look.hairline};
  &[data-right] {
    border-right: 0;
    border-left: 1px solid ${look.hairline};
  }
`;

const Middle = styled.main`
  position: relative;
  min-width: 0;
  min-height: 0;
  overflow: auto;
  padding: 16px 20px 32px;
  h2 {
    font-size: 14px;
    font-weight: 600;
    margin: 12px 0 10px;
  }
`;

const Ways = styled.nav`
  display: flex;
  gap: 16px;
  a {
    display: inline-flex;
    gap: 6px;
    align-items: center;
    color: ${look.done};
  }
`;
