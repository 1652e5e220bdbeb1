import type { Job } from '@tersum/document';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { messageOf } from '../api/client.js';
import { useJobs } from '../api/jobs.js';
import { MainPush, Push, Warning } from '../look/parts.js';
import { look } from '../look/theme.js';
import { DropArea } from './DropArea.js';
import { JobCard } from './JobCard.js';
import { JobForm } from './JobForm.js';
import { UploadList } from './UploadList.js';
import { useUploads } from './uploads.js';

/** The board of jobs. */
export function JobsPage() {
  const { data: jobs, error, isLoading, mutate } = useJobs();
  const [form, setForm] = useState<Job | 'new' | null>(null);
  const uploads = useUploads();
  return (
    <DropArea onFiles={(files) => void uploads.addToNewJob(files)}>
      <Header>
        <Brand>Tersum</Brand>
        <p>Repair bench for photographs</p>
        <MainPush onPress={() => setForm('new')}>
          <Plus size={15} aria-hidden /> New job
        </MainPush>
      </Header>
      <Main>
        <Bar>
          <h1>Jobs</h1>
          {jobs && <span>{summaryOf(jobs)}</span>}
        </Bar>
        <UploadList uploads={uploads.list} onCancel={uploads.cancel} onDismiss={uploads.dismiss} />
        {error !== undefined && (
          <Warning>
            {messageOf(error)} <Push onPress={() => void mutate()}>Try again</Push>
          </Warning>
        )}
        {isLoading && <Loading aria-busy="true" aria-label="Loading the jobs" />}
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
          {jobs?.map((job) => (
            <JobCard
              key={job.id}
              job={job}
              onEdit={() => setForm(job)}
              onFiles={(files) => uploads.add(job.id, files)}
            />
          ))}
        </List>
      </Main>
      {form !== null && (
        <JobForm job={form === 'new' ? null : form} onClose={() => setForm(null)} />
      )}
    </DropArea>
  );
}

function summaryOf(jobs: readonly Job[]): string {
  const open = jobs.filter((job) => job.state !== 'delivered').length;
  const pictures = jobs.reduce((sum, job) => sum + job.pictures.length, 0);
  return `${open} open · ${pictures} ${pictures === 1 ? 'picture' : 'pictures'}`;
}

const Header = styled.header`
  display: flex;
  align-items: center;
  gap: 16px;
  padding: 0 32px;
  height: 56px;
  border-bottom: 1px solid ${look.hairline};
  p {
    flex: 1;
    color: ${look.inkSoft};
  }
`;

const Brand = styled.span`
  font-size: 19px;
  font-weight: 700;
  letter-spacing: -0.01em;
`;

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
    color: ${look.inkSoft};
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
