import { useCallback, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { messageOf } from '../api/client.js';
import { createJob, uploadPicture } from '../api/jobs.js';

/** What the file dialog offers; what a file really is, the server finds out. */
export const PICTURE_TYPES = ['.png', '.jpg', '.jpeg', '.tif', '.tiff', '.webp', '.bmp', '.ora'];

/** A file on its way in. */
export interface Upload {
  readonly id: number;
  readonly name: string;
  /** Share sent, 0..1; 1 while the server reads the file. */
  readonly share: number;
  readonly problem: string | null;
}

/** Sends files to jobs, several at once, each with progress and a way to cancel. */
export function useUploads() {
  const [list, setList] = useState<readonly Upload[]>([]);
  const running = useRef(new Map<number, AbortController>());
  const next = useRef(1);
  const navigate = useNavigate();

  const note = useCallback((id: number, news: Partial<Upload>) => {
    setList((uploads) => uploads.map((u) => (u.id === id ? { ...u, ...news } : u)));
  }, []);
  const dismiss = useCallback((id: number) => setList((all) => all.filter((u) => u.id !== id)), []);

  const add = useCallback(
    (jobId: string, files: readonly File[]) => {
      for (const file of files) {
        const id = next.current++;
        const abort = new AbortController();
        running.current.set(id, abort);
        setList((all) => [...all, { id, name: file.name, share: 0, problem: null }]);
        uploadPicture(jobId, file, (share) => note(id, { share }), abort.signal)
          .then((picture) => {
            dismiss(id);
            if (files.length === 1) void navigate(`/bench/${picture.id}`);
          })
          .catch((error: unknown) => {
            if (abort.signal.aborted) dismiss(id);
            else note(id, { problem: messageOf(error) });
          })
          .finally(() => running.current.delete(id));
      }
    },
    [dismiss, note, navigate],
  );

  const addToNewJob = useCallback(
    async (files: readonly File[]) => {
      const title = files[0]!.name.replace(/\.[^.]*$/, '').slice(0, 120) || 'New job';
      const job = await createJob({
        title,
        client: '',
        due: null,
        notes: '',
        policy: 'documentary',
        state: 'new',
      });
      add(job.id, files);
    },
    [add],
  );
  const cancel = useCallback((id: number) => running.current.get(id)?.abort(), []);
  return { list, add, addToNewJob, cancel, dismiss };
}
