import { Caption, Push } from '../../look/parts.js';
import { useBench, useBenchState } from '../model/context.js';
import { continueChain, finishDraft } from '../model/drafting.js';
import { Gap } from './lines.js';

/** What is being drawn, corner by corner, and how to end it. */
export function DraftLine() {
  const { bench } = useBench();
  const draft = useBenchState((s) => s.draft);
  if (!draft) return null;
  return (
    <>
      <Caption role="status">
        {draft.measuring > 0 ? 'Measuring the line…' : draftWords(draft.site, draft.measured)}
      </Caption>
      <Gap />
      {draft.site.kind === 'chain' && draft.measured.length > 0 && (
        <Push
          isDisabled={draft.measuring > 0}
          aria-keyshortcuts="E"
          onPress={() => void continueChain(bench)}
        >
          To its ends
        </Push>
      )}
      <Push onPress={() => bench.set({ draft: null })}>Drop</Push>
      <Push onPress={() => void finishDraft(bench)}>End and mend</Push>
    </>
  );
}

function draftWords(
  site: { kind: string; points?: readonly unknown[] },
  measured: readonly number[],
): string {
  const corners = site.points?.length ?? 0;
  if (site.kind !== 'chain') return `${corners} corners. Enter closes the outline.`;
  if (corners < 2) return 'Click where the first run ends.';
  const found = measured.length
    ? `Line ${Math.max(...measured).toFixed(1)} px wide: the width follows it.`
    : 'No clear line found: runs stay straight.';
  return `${corners - 1} ${corners === 2 ? 'run' : 'runs'}. ${found} Enter ends the chain.`;
}
