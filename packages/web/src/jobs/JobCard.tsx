import type { Job, JobPicture, PlanJob } from '@tersum/document';
import { differenceInCalendarDays, format, parseISO } from 'date-fns';
import { Combine, FilePlus2, Pencil, ScanLine } from 'lucide-react';
import type { ReactNode } from 'react';
import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import { Link } from 'react-router';
import styled from 'styled-components';
import { Caption, Figure, Push, Quiet } from '../look/parts.js';
import { look } from '../look/theme.js';
import { timeOf } from '../look/time.js';
import { DropArea } from './DropArea.js';
import { CombineWindow } from './making/CombineWindow.js';
import { DeviceWindow } from './making/DeviceWindow.js';
import { PICTURE_TYPES } from './uploads.js';

interface JobCardProps {
  readonly job: Job;
  /** What the plan says of it; null when it is not planned. */
  readonly plan: PlanJob | null;
  /** What it costs, with its currency; null without a rate. */
  readonly price: string | null;
  /** What is done with the whole job. */
  readonly menu: ReactNode;
  onEdit(): void;
  onFiles(files: readonly File[]): void;
}

/** One job: what it is, when it is due, and its pictures as received and as repaired. */
export function JobCard({ job, plan, price, menu, onEdit, onFiles }: JobCardProps) {
  const [open, setOpen] = useState<'combine' | 'device' | null>(null);
  return (
    <DropArea onFiles={onFiles} inset>
      <Card aria-label={job.title}>
        <Facts>
          <Title>
            <h2>{job.title}</h2>
            <Quiet onPress={onEdit} aria-label={`Edit ${job.title}`}>
              <Pencil size={14} aria-hidden />
            </Quiet>
            {menu}
          </Title>
          <p>{job.client || 'No client'}</p>
          <Due due={job.due} done={job.state === 'delivered'} />
          {plan?.late && (
            <Late>
              Done on <Figure>{format(parseISO(plan.ends), 'd MMM')}</Figure> at the earliest
            </Late>
          )}
          <Work job={job} price={price} />
          <State data-state={job.state}>
            {job.archived ? `${job.state}, archived` : job.state}
          </State>
          {job.notes && <Notes title={job.notes}>{job.notes}</Notes>}
          <Row>
            <FileTrigger
              acceptedFileTypes={PICTURE_TYPES}
              allowsMultiple
              onSelect={(files) => files && onFiles([...files])}
            >
              <Push>
                <FilePlus2 size={14} aria-hidden /> Add picture
              </Push>
            </FileTrigger>
            <Quiet
              onPress={() => setOpen('device')}
              aria-label={`Simulated devices for ${job.title}`}
            >
              <ScanLine size={14} aria-hidden /> Scan
            </Quiet>
            <Quiet
              onPress={() => setOpen('combine')}
              aria-label={`Combine pictures of ${job.title}`}
            >
              <Combine size={14} aria-hidden /> Combine
            </Quiet>
          </Row>
        </Facts>
        <Pictures>
          {job.pictures.map((picture) => (
            <PictureTile key={picture.id} picture={picture} />
          ))}
          {job.pictures.length === 0 && <Empty>Drop a picture here to begin.</Empty>}
        </Pictures>
      </Card>
      {open === 'combine' && <CombineWindow job={job} onClose={() => setOpen(null)} />}
      {open === 'device' && <DeviceWindow job={job} onClose={() => setOpen(null)} />}
    </DropArea>
  );
}

function PictureTile({ picture }: { readonly picture: JobPicture }) {
  const thumb = (state: string): string =>
    `/api/pictures/${picture.id}/thumb?state=${state}&v=${picture.coverKey}`;
  return (
    <Tile to={`/bench/${picture.id}`} aria-label={`Open ${picture.name}`}>
      <Pair>
        <img src={thumb('original')} alt="As received" loading="lazy" />
        <img src={thumb('repaired')} alt="As repaired" loading="lazy" />
      </Pair>
      <Name>{picture.name}</Name>
      <Caption>
        <Figure>
          {picture.width} × {picture.height}
        </Figure>{' '}
        · {picture.bits} bit · {picture.repairs === 1 ? '1 repair' : `${picture.repairs} repairs`}
      </Caption>
    </Tile>
  );
}

function Work({ job, price }: { readonly job: Job; readonly price: string | null }) {
  const { spent, remaining } = job.work;
  if (spent < 1 && remaining < 1) return null;
  const part = spent / (spent + remaining);
  return (
    <WorkLine>
      <div>
        <i style={{ width: `${100 * part}%` }} />
      </div>
      <Figure>{spent < 1 ? '0 min' : timeOf(spent)}</Figure> spent
      {remaining >= 1 && (
        <>
          , <Figure>{timeOf(remaining)}</Figure> left
        </>
      )}
      {price && (
        <>
          {' '}
          · <Figure>{price}</Figure>
        </>
      )}
    </WorkLine>
  );
}

function Due({ due, done }: { readonly due: string | null; readonly done: boolean }) {
  if (!due) return <DueLine>No due date</DueLine>;
  const day = parseISO(due);
  const left = differenceInCalendarDays(day, new Date());
  const when = left === 0 ? 'today' : left > 0 ? `in ${left} d` : `${-left} d late`;
  return (
    <DueLine $pressing={!done && left <= 2}>
      Due <Figure>{format(day, 'd MMM')}</Figure>
      {!done && <span>{when}</span>}
    </DueLine>
  );
}

const Card = styled.article`
  display: grid;
  grid-template-columns: 316px 1fr;
  background: ${look.paperHigh};
  border: 1px solid ${look.hairline};
  border-radius: ${look.corner};
`;

const Facts = styled.div`
  padding: 16px 20px;
  border-right: 1px solid ${look.hairline};
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 3px;
  h2 {
    font-size: 16px;
    line-height: 1.3;
    font-weight: 600;
  }
  p {
    color: ${look.inkSoft};
  }
`;

const Title = styled.div`
  display: flex;
  align-self: stretch;
  align-items: flex-start;
  gap: 2px;
  h2 {
    flex: 1;
  }
`;

const DueLine = styled.div<{ $pressing?: boolean }>`
  margin-top: 6px;
  color: ${(p) => (p.$pressing ? look.todo : look.ink)};
  font-weight: ${(p) => (p.$pressing ? 600 : 400)};
  span + span {
    margin-left: 8px;
  }
`;

const Late = styled.p`
  && {
    color: ${look.todo};
    font-size: 12px;
  }
`;

const WorkLine = styled.div`
  align-self: stretch;
  margin: 2px 0 6px;
  font-size: 12px;
  color: ${look.inkSoft};
  div {
    height: 4px;
    margin-bottom: 3px;
    background: ${look.hairline};
  }
  i {
    display: block;
    height: 100%;
    background: ${look.done};
  }
`;

const State = styled.span`
  font-size: 12px;
  padding: 0 7px;
  line-height: 20px;
  border: 1px solid ${look.hairline};
  border-radius: 10px;
  &[data-state='delivered'],
  &[data-state='to check'] {
    border-color: ${look.done};
    color: ${look.done};
  }
  &[data-state='new'] {
    border-style: dashed;
  }
`;

const Notes = styled.div`
  font-size: 12px;
  color: ${look.inkSoft};
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
  overflow: hidden;
  margin-top: 4px;
`;

const Row = styled.div`
  display: flex;
  gap: 4px;
  margin-top: auto;
  padding-top: 10px;
`;

const Pictures = styled.div`
  padding: 16px 20px;
  display: flex;
  flex-wrap: wrap;
  gap: 16px 20px;
  align-content: flex-start;
`;

const Tile = styled(Link)`
  display: grid;
  color: inherit;
  text-decoration: none;
  width: 330px;
  gap: 2px;
  &:hover img {
    border-color: ${look.done};
  }
`;

const Pair = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 2px;
  margin-bottom: 4px;
  img {
    width: 100%;
    height: 116px;
    object-fit: cover;
    background: #b1b1b1;
    border: 1px solid transparent;
  }
`;

const Name = styled.span`
  font-weight: 600;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
`;

const Empty = styled.p`
  color: ${look.inkSoft};
  border: 1px dashed ${look.hairline};
  width: 100%;
  min-height: 116px;
  display: grid;
  place-items: center;
`;
