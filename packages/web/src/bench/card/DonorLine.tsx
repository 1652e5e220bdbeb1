import type { Donor, Repair } from '@tersum/document';
import { isCopy, isPlainShift } from '@tersum/document';
import { Crosshair, Search, Split } from 'lucide-react';
import { Caption, Choice, Choices, Figure, Push } from '../../look/parts.js';
import { useBench, useBenchState } from '../model/context.js';
import { findOffers, fromBothSides } from '../model/offers.js';
import { repairEdit } from '../model/repairs.js';
import { layTwin } from '../model/twin.js';
import type { DonorChoice } from '../model/state.js';
import { KeepDonor, KeptDonors } from './KeptDonors.js';

/** Where pixels come from: of the selected repair, or of the next one. */
export function DonorLine({ repair }: { readonly repair: Repair | null }) {
  const { bench } = useBench();
  const { tool, failed, picking } = useBenchState((s) => ({
    tool: s.tool,
    failed: repair ? s.view?.failed[repair.id] : undefined,
    picking: s.pickingDonor,
  }));
  const point = (
    <Push onPress={() => bench.set({ pickingDonor: true })}>
      <Crosshair size={14} aria-hidden /> Choose donor
    </Push>
  );
  if (picking) return <Caption role="status">Click where to copy from.</Caption>;

  if (repair && isCopy(repair.method)) {
    const { method } = repair;
    return (
      <>
        <Caption role="status" title={failed ?? wayWords(method.donor)}>
          {failed ?? (
            <>
              Donor <Figure>{wayWords(method.donor)}</Figure>
              {method.other && ', and one on the other side'}
            </>
          )}
        </Caption>
        {point}
        <Push onPress={() => void findOffers(bench, repair)}>
          <Search size={14} aria-hidden /> Find donors
        </Push>
        {method.other ? (
          <Push
            onPress={() =>
              void bench.change('Mend from one side', [
                repairEdit({ ...repair, method: { ...method, other: null } }),
              ])
            }
          >
            One side
          </Push>
        ) : (
          <Push onPress={() => void fromBothSides(bench, repair)}>
            <Split size={14} aria-hidden /> Both sides
          </Push>
        )}
        <Push onPress={() => void layTwin(bench, repair)}>Find twin</Push>
        <KeepDonor repair={repair} />
      </>
    );
  }
  if (repair)
    return (
      <Caption>
        {repair.method.kind === 'push'
          ? 'Strength says how far content is carried along. Drag the stroke to push elsewhere.'
          : 'Everything repaired before is taken off here; repairs after this one still show.'}
      </Caption>
    );
  return (
    <>
      <Caption>{choiceWords(tool.donor)}</Caption>
      {point}
      <KeptDonors />
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
  if (donor.kind === 'place') return 'Donor chosen for the next stroke.';
  return `Donor ${wayWords(donor.shift)}`;
}

/** A donor in words: 24 px right, 6 px up, turned 12°. */
function wayWords(donor: Donor): string {
  const { dx, dy, turn, mirrorX, mirrorY, scale } = donor;
  const figure = (v: number): number => Math.round(Math.abs(v) * 100) / 100;
  const across = dx ? `${figure(dx)} px ${dx > 0 ? 'right' : 'left'}` : '';
  const along = dy ? `${figure(dy)} px ${dy > 0 ? 'down' : 'up'}` : '';
  const laid = isPlainShift(donor)
    ? []
    : [
        turn ? `turned ${turn}°` : '',
        scale !== 1 ? `at ${Math.round(scale * 100)} %` : '',
        mirrorX || mirrorY ? 'mirrored' : '',
      ];
  const words = [across, along, ...laid].filter(Boolean).join(', ') || 'the site itself';
  return donor.picture ? `${words}, in another picture` : words;
}
