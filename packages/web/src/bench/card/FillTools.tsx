import type { Repair } from '@tersum/document';
import { Search } from 'lucide-react';
import { Caption, Choice, Choices, Push, Toggle } from '../../look/parts.js';
import { useBench, useBenchState } from '../model/context.js';
import type { FillMethod } from '../model/fills.js';
import {
  ask,
  cutIntoPortions,
  findGuides,
  findVariants,
  giveGrain,
  toggleHeat,
} from '../model/fills.js';
import { hideGrounds, showGrounds } from '../model/grounds.js';
import type { FillHand } from '../model/state.js';
import { Gap, Line } from './lines.js';
import { searchAgain } from './settings.js';

const HANDS: readonly (readonly [FillHand, string])[] = [
  ['pick', 'Pick'],
  ['allow', 'Allow'],
  ['forbid', 'Forbid'],
  ['guide', 'Guide'],
];

const WORDS: Record<FillHand, string> = {
  pick: '',
  allow: 'Scribble over what may be copied.',
  forbid: 'Scribble over what must not be copied.',
  guide: 'Draw along an edge, from one side of the site to the other.',
};

/** Tilts and sizes tried when donors may be laid otherwise. */
const FREE = { turn: 15, scale: [0.85, 1.18] as [number, number] };

/** What can be asked of a fill: where it copies from, along what, in how many portions, and how sure it is. */
export function FillTools({
  repair,
  fill,
}: {
  readonly repair: Repair;
  readonly fill: FillMethod;
}) {
  const { bench } = useBench();
  const { hand, grounds, looking, heat, failed, stale } = useBenchState((s) => ({
    hand: s.fillHand,
    grounds: s.grounds?.repair === repair.id,
    looking: s.grounds?.repair === repair.id && s.grounds.list === null,
    heat: s.heat?.repair === repair.id,
    failed: s.view?.failed[repair.id],
    stale: s.view?.donorChanged.includes(repair.id) ?? false,
  }));
  const changed = stale ? 'What this fill copies from has changed since. Search again?' : '';
  const words = failed ?? (looking ? 'Looking for grounds…' : WORDS[hand] || changed);
  return (
    <>
      <Line>
        <Choices
          aria-label="Work on the fill"
          selectionMode="single"
          disallowEmptySelection
          selectedKeys={[hand]}
          onSelectionChange={(keys) => bench.set({ fillHand: [...keys][0] as FillHand })}
        >
          {HANDS.map(([id, name]) => (
            <Choice key={id} id={id}>
              {name}
            </Choice>
          ))}
        </Choices>
        <Toggle
          aria-label="Grounds"
          isSelected={grounds}
          onChange={(shown) => (shown ? void showGrounds(bench, repair) : hideGrounds(bench))}
        >
          Grounds
        </Toggle>
        <Push onPress={() => void findGuides(bench, repair)}>Find guides</Push>
        {!fill.sides && (
          <Push onPress={() => void cutIntoPortions(bench, repair)}>Cut into portions</Push>
        )}
        <Caption role="status">{words}</Caption>
        <Gap />
        <Toggle
          aria-label="How sure"
          isSelected={heat}
          onChange={() => void toggleHeat(bench, repair)}
        >
          How sure
        </Toggle>
      </Line>
      <Line>
        {!fill.sides && <DonorWishes repair={repair} fill={fill} />}
        <Gap />
        <Toggle
          aria-label="Give grain back"
          isSelected={fill.grain > 0}
          onChange={(on) => void giveGrain(bench, repair, on)}
        >
          Grain back
        </Toggle>
        <Push onPress={() => void findVariants(bench, repair)}>Variants</Push>
        <Push onPress={() => void searchAgain(bench, repair)}>
          <Search size={14} aria-hidden /> Search again
        </Push>
      </Line>
    </>
  );
}

/** How donors may be laid otherwise than they stand. */
function DonorWishes({ repair, fill }: { readonly repair: Repair; readonly fill: FillMethod }) {
  const { bench } = useBench();
  return (
    <>
      <Caption>Donors may be</Caption>
      <Toggle
        isSelected={fill.turn > 0}
        onChange={(on) => void ask(bench, repair, 'Turn donors', { turn: on ? FREE.turn : 0 })}
      >
        turned, ±15°
      </Toggle>
      <Toggle
        isSelected={fill.mirror}
        onChange={(mirror) => void ask(bench, repair, 'Mirror donors', { mirror })}
      >
        mirrored
      </Toggle>
      <Toggle
        isSelected={fill.scale[0] !== 1 || fill.scale[1] !== 1}
        onChange={(on) =>
          void ask(bench, repair, 'Scale donors', { scale: on ? FREE.scale : [1, 1] })
        }
      >
        scaled, 85-118 %
      </Toggle>
    </>
  );
}
