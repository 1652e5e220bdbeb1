import type { Repair, VariantOffer } from '@tersum/document';
import styled from 'styled-components';
import { Caption, Figure, MainPush, Push } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { useBench, useBenchState } from '../model/context.js';
import { dropVariants, findVariants, takeVariant, walkVariants } from '../model/fills.js';
import { Gap, Line } from './lines.js';

const LEANS: Record<VariantOffer['lean'], string> = {
  balanced: 'balanced',
  structure: 'structure first',
  texture: 'texture first',
};

/** Fillings of the open site side by side with what gives them away; arrow keys walk through them. */
export function VariantsStrip({ repair }: { readonly repair: Repair }) {
  const { bench } = useBench();
  const variants = useBenchState((s) => (s.variants?.repair === repair.id ? s.variants : null));
  if (!variants) return null;
  if (!variants.list)
    return (
      <Line>
        <Caption role="status">Computing three variants…</Caption>
        <Gap />
        <Push onPress={() => dropVariants(bench)}>Stop</Push>
      </Line>
    );
  return (
    <Line>
      <Strip role="listbox" aria-label="Variants">
        {variants.list.map((variant, i) => (
          <Pick
            key={variant.search}
            type="button"
            role="option"
            aria-selected={i === variants.at}
            aria-label={`Variant ${i + 1}, ${LEANS[variant.lean]}`}
            onClick={() => walkVariants(bench, i - variants.at)}
          >
            <b>
              {i + 1} {LEANS[variant.lean]}
            </b>
            <span title="Step across the border beside the surroundings’: 1 is none">
              seam <Figure>{variant.figures.seam.toFixed(2)}</Figure>
            </span>
            <span title="Texture inside beside the surroundings’: 1 is alike">
              texture <Figure>{variant.figures.texture.toFixed(2)}</Figure>
            </span>
            <span title="Share that copies the same place twice">
              twice <Figure>{Math.round(100 * variant.figures.repeats)} %</Figure>
            </span>
          </Pick>
        ))}
      </Strip>
      <Push onPress={() => void findVariants(bench, repair)}>More</Push>
      <Gap />
      <Push onPress={() => dropVariants(bench)}>Leave it</Push>
      <MainPush onPress={() => takeVariant(bench)}>Take this variant</MainPush>
    </Line>
  );
}

const Strip = styled.div`
  display: flex;
  gap: 6px;
  overflow-x: auto;
`;

const Pick = styled.button`
  display: grid;
  grid-template-columns: repeat(3, auto);
  column-gap: 8px;
  padding: 3px 8px;
  border: 2px solid ${look.hairline};
  border-radius: ${look.corner};
  background: ${look.paperHigh};
  flex-shrink: 0;
  text-align: left;
  font-size: 11px;
  white-space: nowrap;
  & > span {
    display: grid;
  }
  b {
    grid-column: 1 / -1;
    font-size: 12px;
  }
  &[aria-selected='true'] {
    border-color: ${look.done};
    background: ${look.doneSoft};
  }
`;
