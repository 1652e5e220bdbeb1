import type { Job, Making } from '@tersum/document';
import type { EDGES } from '@tersum/document';
import { useState } from 'react';
import { Checkbox, CheckboxGroup } from 'react-aria-components';
import styled from 'styled-components';
import { OneOf } from '../../look/OneOf.js';
import { Caption } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { Field, Window } from '../../look/Window.js';
import { JoinReach } from './JoinReach.js';
import { MakingFoot } from './MakingFoot.js';
import { useMaking } from './useMaking.js';

const WAYS = {
  join: {
    label: 'Join frames',
    about: 'Overlapping frames become one wide picture. Their order is found by itself.',
    most: 12,
  },
  unglare: {
    label: 'Take reflections off',
    about: 'Two to five photographs of one print, the light in another place each time.',
    most: 5,
  },
} as const;
type Way = keyof typeof WAYS;

const EDGE_NAMES: Record<(typeof EDGES)[number], string> = {
  leave: 'Leave ragged',
  crop: 'Crop to full',
  fill: 'Fill them',
};
const PROJECTIONS = { auto: 'Choose for me', plane: 'Plane', cylinder: 'Cylinder' } as const;

/** Makes one picture of several of the job. */
export function CombineWindow({ job, onClose }: { readonly job: Job; onClose(): void }) {
  const [way, setWay] = useState<Way>('join');
  const [chosen, setChosen] = useState<string[]>([]);
  const [edges, setEdges] = useState<(typeof EDGES)[number]>('crop');
  const [projection, setProjection] = useState<keyof typeof PROJECTIONS>('auto');
  const [reach, setReach] = useState(1);
  const making = useMaking(job.id);
  const { about, most } = WAYS[way];
  const enough = chosen.length >= 2 && chosen.length <= most;
  // In the board's order, whichever was ticked first.
  const pictures = job.pictures.map((p) => p.id).filter((id) => chosen.includes(id));
  const order: Making | null = !enough
    ? null
    : way === 'join'
      ? { kind: 'join', pictures, projection, edges, reach }
      : { kind: 'unglare', pictures };
  return (
    <Window title="One picture from several" isOpen width={620} onClose={onClose}>
      <Field as="div">
        <OneOf
          label="What to do"
          options={{ join: WAYS.join.label, unglare: WAYS.unglare.label }}
          value={way}
          onChange={(v) => setWay(v)}
        />
        <Caption>{about}</Caption>
      </Field>
      <CheckboxGroup aria-label="Pictures" value={chosen} onChange={setChosen}>
        <Grid>
          {job.pictures.map((picture) => (
            <Pick key={picture.id} value={picture.id}>
              <img
                src={`/api/pictures/${picture.id}/thumb?state=repaired&v=${picture.coverKey}`}
                alt=""
              />
              <span>{picture.name}</span>
            </Pick>
          ))}
        </Grid>
      </CheckboxGroup>
      {job.pictures.length < 2 && (
        <Caption>This job has fewer than two pictures. Add some first.</Caption>
      )}
      {way === 'join' && (
        <Pair>
          <Field as="div">
            <span>Ragged edges</span>
            <OneOf
              label="Ragged edges"
              options={EDGE_NAMES}
              value={edges}
              onChange={(v) => setEdges(v)}
            />
          </Field>
          <Field>
            <span>Laid on</span>
            <select
              value={projection}
              onChange={(event) => setProjection(event.target.value as keyof typeof PROJECTIONS)}
            >
              {Object.entries(PROJECTIONS).map(([id, name]) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </select>
          </Field>
        </Pair>
      )}
      {way === 'join' && edges === 'fill' && (
        <JoinReach
          job={job.id}
          query={enough ? { pictures, projection } : null}
          reach={reach}
          onReach={setReach}
        />
      )}
      {chosen.length > most && <Caption>At most {most} pictures at a time.</Caption>}
      <MakingFoot making={making} order={order} verb={WAYS[way].label} onClose={onClose} />
    </Window>
  );
}

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 8px;
  max-height: 260px;
  overflow: auto;
  margin-bottom: 12px;
`;

const Pick = styled(Checkbox)`
  display: grid;
  gap: 2px;
  padding: 4px;
  border: 1px solid ${look.hairline};
  border-radius: ${look.corner};
  background: ${look.paperHigh};
  font-size: 12px;
  position: relative;
  img {
    width: 100%;
    height: 76px;
    object-fit: cover;
    background: #b1b1b1;
  }
  span {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  &[data-selected] {
    border-color: ${look.done};
    box-shadow: inset 0 0 0 1px ${look.done};
  }
  &[data-selected]::after {
    content: '✓';
    position: absolute;
    top: 6px;
    right: 6px;
    width: 18px;
    height: 18px;
    display: grid;
    place-items: center;
    background: ${look.done};
    color: #fff;
    border-radius: 9px;
  }
  &[data-focus-visible] {
    outline: 2px solid ${look.done};
  }
`;

const Pair = styled.div`
  display: grid;
  grid-template-columns: 1fr 170px;
  gap: 16px;
`;
