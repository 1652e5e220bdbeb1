import { zodResolver } from '@hookform/resolvers/zod';
import type { Job, JobDraft } from '@tersum/document';
import { JOB_STATES, JobDraftSchema } from '@tersum/document';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import type { z } from 'zod';
import { messageOf } from '../api/client.js';
import { createJob, updateJob } from '../api/jobs.js';
import { MainPush, Push, Warning } from '../look/parts.js';
import { Actions, Field, Window } from '../look/Window.js';

const BLANK: JobDraft = {
  title: '',
  client: '',
  due: null,
  notes: '',
  state: 'new',
  policy: 'documentary',
};

/** What is entered; the policy may be left out. */
type JobEntries = z.input<typeof JobDraftSchema>;

/** Begins a job, or changes what is written about one. */
export function JobForm({ job, onClose }: { readonly job: Job | null; onClose(): void }) {
  const [problem, setProblem] = useState<string | null>(null);
  const { register, handleSubmit, formState } = useForm<JobEntries, unknown, JobDraft>({
    resolver: zodResolver(JobDraftSchema),
    defaultValues: job ?? BLANK,
  });
  const save = handleSubmit(async (draft) => {
    try {
      await (job ? updateJob(job.id, draft) : createJob(draft));
      onClose();
    } catch (error) {
      setProblem(messageOf(error));
    }
  });
  const { errors } = formState;
  return (
    <Window title={job ? 'Edit job' : 'New job'} isOpen onClose={onClose}>
      <form onSubmit={(event) => void save(event)} noValidate>
        {problem && <Warning>{problem}</Warning>}
        <Field>
          <span>Title</span>
          <input {...register('title')} autoFocus aria-invalid={!!errors.title} />
          {errors.title && <em role="alert">{errors.title.message}</em>}
        </Field>
        <Field>
          <span>Client</span>
          <input {...register('client')} />
          {errors.client && <em role="alert">{errors.client.message}</em>}
        </Field>
        <Field>
          <span>Due</span>
          <input
            type="date"
            {...register('due', { setValueAs: (v: string | null) => v || null })}
          />
          {errors.due && <em role="alert">{errors.due.message}</em>}
        </Field>
        <Field>
          <span>State</span>
          <select {...register('state')}>
            {JOB_STATES.map((state) => (
              <option key={state}>{state}</option>
            ))}
          </select>
        </Field>
        <Field>
          <span>What may be mended</span>
          <select {...register('policy')}>
            <option value="documentary">Damage only: what stood before the camera stays</option>
            <option value="picture">Distractions too: wires, fences, logos</option>
          </select>
        </Field>
        <Field>
          <span>Notes</span>
          <textarea rows={3} {...register('notes')} />
          {errors.notes && <em role="alert">{errors.notes.message}</em>}
        </Field>
        <Actions>
          <Push onPress={onClose}>Cancel</Push>
          <MainPush type="submit" isDisabled={formState.isSubmitting}>
            {job ? 'Save' : 'Begin job'}
          </MainPush>
        </Actions>
      </form>
    </Window>
  );
}
