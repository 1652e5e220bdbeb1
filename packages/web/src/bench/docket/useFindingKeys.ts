import type { DocketFinding } from '@tersum/document';
import { useEffect } from 'react';
import { useBench, useBenchState } from '../model/context.js';
import { dismissFinding, showFinding } from '../model/survey-acts.js';

/** Keys of the open group: N and P walk through its findings, K keeps the selected one as it is. */
export function useFindingKeys(open: readonly DocketFinding[], isOpen: boolean): void {
  const { bench } = useBench();
  const chosen = useBenchState((s) => s.finding);
  useEffect(() => {
    if (!isOpen) return;
    const down = (event: KeyboardEvent): void => {
      const target = event.target as HTMLElement;
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      if (
        target.matches('input:not([type="range"]), textarea, select') ||
        target.closest('[role="dialog"]')
      )
        return;
      const at = open.findIndex((f) => f.id === chosen);
      const finding = open[at];
      if (!finding) return;
      const key = event.key.toLowerCase();
      if (key === 'k') void dismissFinding(bench, finding, true, open[at + 1] ?? open[at - 1]);
      else if (key === 'n' || key === 'p')
        showFinding(bench, open[at + (key === 'n' ? 1 : -1)] ?? finding);
      else return;
      event.preventDefault();
    };
    window.addEventListener('keydown', down);
    return () => window.removeEventListener('keydown', down);
  }, [bench, open, isOpen, chosen]);
}
