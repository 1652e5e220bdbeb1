import { UserProblem } from '@tersum/codec';
import type { RequestHandler } from 'express';
import multer, { MulterError } from 'multer';

const MOST_BYTES = 2_000_000_000;

/** Takes the file of a form's field `file` into a folder; what goes wrong on the way is told in a sentence. */
export function fileInto(folder: string): RequestHandler {
  const take = multer({ dest: folder, limits: { fileSize: MOST_BYTES, files: 1 } }).single('file');
  return (req, res, next) => void take(req, res, (error) => next(error && problemOf(error)));
}

function problemOf(error: unknown): unknown {
  if (error instanceof MulterError)
    return error.code === 'LIMIT_FILE_SIZE'
      ? new UserProblem(
          413,
          `This file has more than ${MOST_BYTES / 1e9} GB. Make it smaller first.`,
        )
      : new UserProblem(400, 'No file arrived. Choose a picture file.');
  // What the disk refuses is nobody's fault who sent something.
  if ((error as NodeJS.ErrnoException).syscall) return error;
  return new UserProblem(400, 'The file did not arrive whole. Send it once more.');
}

/** The name a file came under, as it can be shown: without folders, and without what is no letter. */
export function nameOf({ originalname }: { readonly originalname: string }): string {
  const name = Buffer.from(originalname, 'latin1').toString('utf8').normalize('NFC');
  return name.replace(/^.*[/\\]/s, '').replace(/\p{Cc}/gu, '');
}
