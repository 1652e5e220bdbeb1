import type { ExportRequest, ExportStatus } from '@tersum/document';
import { useCallback, useEffect, useState } from 'react';
import { messageOf } from '../../api/client.js';
import { getExport, postExport, stopExport } from '../../api/exports.js';

/** How often files that are being written are asked about, ms. */
const EVERY = 250;

/** Files being made of a picture, one or several at once. */
export function useExports(pictureId: string) {
  const [files, setFiles] = useState<readonly ExportStatus[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  const working = files.some((f) => f.state === 'working');

  useEffect(() => {
    if (!working) return;
    const timer = setInterval(() => {
      Promise.all(files.map((f) => (f.state === 'working' ? getExport(f.id) : f))).then(
        setFiles,
        (error: unknown) => setProblem(messageOf(error)),
      );
    }, EVERY);
    return () => clearInterval(timer);
  }, [files, working]);

  const begin = useCallback(
    async (orders: readonly ExportRequest[]): Promise<void> => {
      setProblem(null);
      try {
        setFiles(await Promise.all(orders.map((order) => postExport(pictureId, order))));
      } catch (error) {
        setProblem(messageOf(error));
      }
    },
    [pictureId],
  );
  const clear = useCallback((): void => {
    for (const { id, state } of files)
      if (state === 'working') stopExport(id).catch(() => undefined);
    setFiles([]);
  }, [files]);
  return { files, working, problem, begin, clear };
}
