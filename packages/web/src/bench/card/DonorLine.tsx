import type { Donor, Repair } from '@tersum/document';
import { Crosshair, Search } from 'lucide-react';
import { Caption, Choice, Choices, Figure, Push } from '../../look/parts.js';
import { useBench, useBenchState } from '../model/context.js';
import type { DonorChoice } from '../model/state.js';
import { donorAgain, searchAgain } from './settings.js';

/** Where pixels come from: of the selected repair, or of the next one. */
export function DonorLine({ repair }: { readonly repair: Repair | null }) {
  const { bench } = useBench();
  const { tool, view, picking } = useBenchState((s) => ({
    tool: s.tool,
    view: s.view,
    picking: s.pickingDonor,
  }));
  const point = (
    <Push onPress={() => bench.set({ pickingDonor: true })}>
      <Crosshair size={14} aria-hidden /> Choose donor
    </Push>
  );
  if (picking) return <Caption role="status">Click where to copy from.</Caption>;

  if (repair?.method.kind === 'fill') {
    const failed = view?.failed[repair.id];
    const stale = view?.donorChanged.includes(repair.id);
    return (
      <>
        <Caption role="status">
          {failed ??
            (stale
              ? 'What this fill copies from has changed since. Search again?'
              : 'Donors chosen by the fill, pixel by pixel.')}
        </Caption>
        <Push onPress={() => void searchAgain(bench, repair)}>
          <Search size={14} aria-hidden /> Search again
        </Push>
      </>
    );
  }
  if (repair) {
    return (
      <>
        <Caption>
          Donor <Figure>{wayWords(repair.method.donor)}</Figure>
        </Caption>
        {point}
        <Push onPress={() => void donorAgain(bench, repair)}>
          <Search size={14} aria-hidden /> Find a donor
        </Push>
      </>
    );
  }
  return (
    <>
      <Caption>{choiceWords(tool.donor)}</Caption>
      {point}
      {tool.donor.kind !== 'search' && (
        <>
          <Push onPress={() => bench.setTool({ donor: { kind: 'search' } })}>
            <Search size={14} aria-hidden /> Let Tersum find it
          </Push>
          <Choices
            aria-label="Strokes"
            selectionMode="single"
            disallowEmptySelection
            selectedKeys={[tool.keepStep ? 'keep' : 'afresh']}
            onSelectionChange={(keys) => bench.setTool({ keepStep: [...keys][0] === 'keep' })}
          >
            <Choice id="keep">Keep step</Choice>
            <Choice id="afresh">Start afresh</Choice>
          </Choices>
        </>
      )}
    </>
  );
}

function choiceWords(donor: DonorChoice): string {
  if (donor.kind === 'search') return 'Donor found for each site. Or hold D and click one.';
  if (donor.kind === 'place') return 'Donor chosen: the next stroke copies from there.';
  return `Donor ${wayWords(donor.shift)}`;
}

/** A shift in words: 24 px right, 6 px up. */
function wayWords(donor: Donor): string {
  const { dx, dy } = donor;
  const across = dx ? `${Math.abs(dx)} px ${dx > 0 ? 'right' : 'left'}` : '';
  const along = dy ? `${Math.abs(dy)} px ${dy > 0 ? 'down' : 'up'}` : '';
  return [across, along].filter(Boolean).join(', ') || 'the site itself';
}
