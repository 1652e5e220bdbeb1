import type { House, Job } from '@tersum/document';
import { priceOf } from '@tersum/document';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { Input, SearchField } from 'react-aria-components';
import styled from 'styled-components';
import { messageOf } from '../api/client.js';
import { deleteJob, restoreJob, useJobs } from '../api/jobs.js';
import { useHouse } from '../api/work.js';
import { OneOf } from '../look/OneOf.js';
import { PageHeader } from '../look/PageHeader.js';
import { MainPush, Push, Quiet, Warning } from '../look/parts.js';
import { look } from '../look/theme.js';
import { DropArea } from './DropArea.js';
import type { Shown } from './board/filter.js';
import { filtered, SHOWN } from './board/filter.js';
import { HouseWindow } from './board/HouseWindow.js';
import { PlanStrip, todaysPlan } from './board/PlanStrip.js';
import { JobCard } from './JobCard.js';
import { JobMenu } from './JobMenu.js';
import { JobForm } from './JobForm.js';
import { UploadList } from './UploadList.js';
import { useUploads } from './uploads.js';

/** The board of jobs. */
export function JobsPage() {
  const { data, error, isLoading, mutate } = useJobs();
  const [form, setForm] = useState<Job | 'new' | null>(null);
  const [words, setWords] = useState('');
  const [shown, setShown] = useState<Shown>('open');
  const [gone, setGone] = useState<Job | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [settings, setSettings] = useState(false);
  const { data: house, error: houseTrouble, isLoading: isHouseLoading } = useHouse();
  // Prices and what will be late are told with the jobs: jobs that grew would move away under a pointer.
  const isComing = isLoading || (isHouseLoading && houseTrouble === undefined);
  const jobs = isComing ? undefined : data;
  const uploads = useUploads();
  const plan = jobs && house ? todaysPlan(jobs, house) : null;
  const drop = async (job: Job): Promise<void> => {
    try {
      await deleteJob(job.id);
      setGone(job);
    } catch (failed) {
      setProblem(messageOf(failed));
    }
  };
  const takeBack = async (job: Job): Promise<void> => {
    try {
      await restoreJob(job.id);
      setGone(null);
    } catch (failed) {
      setProblem(messageOf(failed));
    }
  };
  return (
    <DropArea onFiles={(files) => void uploads.addToNewJob(files)}>
      <PageHeader>
        <MainPush onPress={() => setForm('new')}>
          <Plus size={15} aria-hidden /> New job
        </MainPush>
      </PageHeader>
      <Main>
        <Bar>
          <h1>Jobs</h1>
          <span>{jobs && summaryOf(jobs)}</span>
          <Search aria-label="Search jobs" value={words} onChange={setWords}>
            <Input placeholder="Search title, client, picture" />
          </Search>
          <OneOf
            label="Which jobs"
            options={SHOWN}
            value={shown}
            onChange={(next) => setShown(next)}
          />
        </Bar>
        {jobs && jobs.length > 0 && house && (
          <PlanStrip jobs={jobs} house={house} onSettings={() => setSettings(true)} />
        )}
        {gone && (
          <Gone role="status">
            <span>“{gone.title}” was deleted.</span>
            <Push onPress={() => void takeBack(gone)}>Undo</Push>
            <Quiet onPress={() => setGone(null)}>Dismiss</Quiet>
          </Gone>
        )}
        {problem && <Warning>{problem}</Warning>}
        <UploadList uploads={uploads.list} onCancel={uploads.cancel} onDismiss={uploads.dismiss} />
        {error !== undefined && (
          <Warning>
            {messageOf(error)} <Push onPress={() => void mutate()}>Try again</Push>
          </Warning>
        )}
        {isComing && <Loading aria-busy="true" aria-label="Loading the jobs" />}
        {jobs?.length === 0 && (
          <Nothing>
            <h2>No jobs yet</h2>
            <p>
              Drop a picture anywhere on this page, or paste one, and a job is made for it. Or begin
              with the client and the due date.
            </p>
            <MainPush onPress={() => setForm('new')}>New job</MainPush>
          </Nothing>
        )}
        <List>
          {filtered(jobs ?? [], shown, words).map((job) => (
            <JobCard
              key={job.id}
              job={job}
              plan={plan?.jobs.find((p) => p.id === job.id) ?? null}
              price={priceText(job, house)}
              menu={
                <JobMenu
                  job={job}
                  onDelete={() => void drop(job)}
                  onTrouble={(error) => setProblem(messageOf(error))}
                />
              }
              onEdit={() => setForm(job)}
              onFiles={(files) => uploads.add(job.id, files)}
            />
          ))}
          {jobs && jobs.length > 0 && !filtered(jobs, shown, words).length && (
            <p>No job matches. Search for less, or show all jobs.</p>
          )}
        </List>
      </Main>
      {settings && house && <HouseWindow house={house} onClose={() => setSettings(false)} />}
      {form !== null && (
        <JobForm job={form === 'new' ? null : form} onClose={() => setForm(null)} />
      )}
    </DropArea>
  );
}

function priceText(job: Job, house: House | undefined): string | null {
  const price = house ? priceOf(job.work.spent + job.work.remaining, house) : null;
  return house && price ? `${price} ${house.currency}` : null;
}

function summaryOf(jobs: readonly Job[]): string {
  const open = jobs.filter((job) => job.state !== 'delivered').length;
  const pictures = jobs.reduce((sum, job) => sum + job.pictures.length, 0);
  return `${open} open · ${pictures} ${pictures === 1 ? 'picture' : 'pictures'}`;
}

const Main = styled.main`
  max-width: 1120px;
  margin: 0 auto;
  padding: 24px 32px 64px;
`;

const Bar = styled.div`
  display: flex;
  align-items: baseline;
  gap: 16px;
  margin-bottom: 16px;
  h1 {
    font-size: 26px;
    font-weight: 600;
    letter-spacing: -0.01em;
  }
  span {
    flex: 1;
    color: ${look.inkSoft};
  }
`;

const Search = styled(SearchField)`
  input {
    width: 230px;
    min-height: 28px;
    padding: 0 9px;
    border: 1px solid ${look.hairline};
    border-radius: ${look.corner};
    background: ${look.paperHigh};
  }
`;

const Gone = styled.div`
  display: flex;
  align-items: center;
  gap: 10px;
  margin-bottom: 12px;
  padding: 6px 12px;
  border-left: 3px solid ${look.done};
  background: ${look.doneSoft};
  span {
    flex: 1;
  }
`;

const List = styled.div`
  display: grid;
  gap: 12px;
`;

const Loading = styled.div`
  height: 420px;
  background: repeating-linear-gradient(${look.paperDeep} 0 128px, transparent 128px 140px);
  border-radius: ${look.corner};
`;

const Nothing = styled.div`
  max-width: 52ch;
  margin: 12vh auto;
  display: grid;
  gap: 12px;
  justify-items: start;
  h2 {
    font-size: 20px;
    font-weight: 600;
  }
`;
