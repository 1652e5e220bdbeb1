import type { Job } from '@tersum/document';
import { Archive, ArchiveRestore, Copy, Ellipsis, Trash2 } from 'lucide-react';
import { MenuTrigger, Popover } from 'react-aria-components';
import { archiveJob, duplicateJob } from '../api/jobs.js';
import { Item, List } from '../look/MenuSheet.js';
import { Quiet } from '../look/parts.js';

interface MenuProps {
  readonly job: Job;
  onDelete(): void;
  onTrouble(error: unknown): void;
}

/** What is done with a whole job. */
export function JobMenu({ job, onDelete, onTrouble }: MenuProps) {
  const act = (key: string): void => {
    if (key === 'delete') return onDelete();
    const done = key === 'archive' ? archiveJob(job.id, !job.archived) : duplicateJob(job.id);
    done.catch(onTrouble);
  };
  return (
    <MenuTrigger>
      <Quiet aria-label={`More about ${job.title}`}>
        <Ellipsis size={15} aria-hidden />
      </Quiet>
      <Popover>
        <List onAction={(key) => act(String(key))}>
          <Item id="archive">
            {job.archived ? (
              <>
                <ArchiveRestore size={14} aria-hidden /> Take out of the archive
              </>
            ) : (
              <>
                <Archive size={14} aria-hidden /> Archive
              </>
            )}
          </Item>
          <Item id="duplicate">
            <Copy size={14} aria-hidden /> Duplicate, pictures as received
          </Item>
          <Item id="delete">
            <Trash2 size={14} aria-hidden /> Delete
          </Item>
        </List>
      </Popover>
    </MenuTrigger>
  );
}
