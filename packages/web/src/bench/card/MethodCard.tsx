import type { MethodKind, Repair } from '@tersum/document';
import { isCopy, METHOD_NAMES, sidesOf } from '@tersum/document';
import { Caption, Choice, Choices, Figure, Push } from '../../look/parts.js';
import { useBench, useBenchState } from '../model/context.js';
import { docketOrder, letterOf, siteLength, siteName } from '../model/repairs.js';
import type { Shape } from '../model/state.js';
import { SHAPES } from '../model/state.js';
import { AdviceLine } from './AdviceLine.js';
import { Dials } from './Dials.js';
import { DonorLine } from './DonorLine.js';
import { DraftLine } from './DraftLine.js';
import { Card, Gap, Line, Title } from './lines.js';
import { FillTools } from './FillTools.js';
import { ManyCard } from './ManyCard.js';
import { OffersStrip } from './OffersStrip.js';
import { PatchChoices } from './PatchChoices.js';
import { PieceTools } from './PieceTools.js';
import { PlacementFields } from './PlacementFields.js';
import { changeMethod, chooseMethod } from './settings.js';
import { VariantsStrip } from './VariantsStrip.js';
import { WideningCard } from './WideningCard.js';

const METHODS: readonly MethodKind[] = [
  'clone',
  'graft',
  'patch',
  'fill',
  'piece',
  'push',
  'give back',
];

const SHAPE_NAMES: Record<Shape, string> = {
  pick: 'Pick',
  dab: 'Dab',
  stroke: 'Stroke',
  chain: 'Chain',
  outline: 'Outline',
  rectangle: 'Rectangle',
  thing: 'Thing',
};

const HINTS: Record<Shape, string> = {
  pick: 'Click a repair to open it; drag it to move it. Shift-click opens several.',
  dab: 'Click a spot.',
  stroke: 'Draw over what should go.',
  chain: 'Click along the line, one click a run. Each run bends to the line it finds.',
  outline: 'Draw round the area, or click its corners.',
  rectangle: 'Drag over the area.',
  thing: 'Scribble on a thing: its outline is found and settles on the nearest edge.',
};

const METHOD_HINTS: Partial<Record<MethodKind, string>> = {
  piece: 'Outline what is to be copied; it is then laid where you drag it.',
  push: 'Drag: what lies under the brush is carried along.',
  'give back': 'Draw where the original should show again.',
};

/** The method card: how the selected repair is done, or how the next one will be. */
export function MethodCard() {
  const { repair, letter, many } = useBenchState((s) => {
    const order = s.selected && s.records ? docketOrder(s.records) : [];
    const at = order.findIndex((r) => r.id === s.selected);
    return {
      repair: order[at] ?? null,
      letter: at < 0 ? '' : letterOf(at),
      many: s.also.length > 0,
    };
  });
  if (repair && many) return <ManyCard />;
  const sides = repair && sidesOf(repair.method);
  if (sides) return <WideningCard repair={repair} sides={sides} letter={letter} />;
  return repair ? <OpenRepair repair={repair} letter={letter} /> : <NextRepair />;
}

function OpenRepair({ repair, letter }: { readonly repair: Repair; readonly letter: string }) {
  const { bench } = useBench();
  const { method } = repair;
  const { offered, varied } = useBenchState((s) => ({
    offered: s.offers?.repair === repair.id,
    varied: s.variants?.repair === repair.id,
  }));
  return (
    <Card aria-label="Method card">
      <Line>
        <Title>
          {METHOD_NAMES[method.kind]} {letter}
        </Title>
        <Caption>
          {siteName(repair)}, <Figure>{Math.round(siteLength(repair))} px</Figure> long
        </Caption>
        <Gap />
        <MethodChoices
          chosen={method.kind}
          onChoose={(kind) => void changeMethod(bench, repair, kind)}
        />
        <Push onPress={() => bench.set({ selected: null })}>Done</Push>
      </Line>
      <AdviceLine key={`advice ${repair.id}`} repair={repair} />
      <Dials key={repair.id} repair={repair} />
      {(isCopy(method) || method.kind === 'piece') && (
        <Line>
          <PlacementFields key={repair.id} repair={repair} />
          {method.kind === 'patch' && <PatchChoices repair={repair} />}
        </Line>
      )}
      {offered ? (
        <OffersStrip repair={repair} />
      ) : varied ? (
        <VariantsStrip repair={repair} />
      ) : method.kind === 'fill' ? (
        <FillTools repair={repair} fill={method} />
      ) : (
        <Line>
          {method.kind === 'piece' ? (
            <PieceTools repair={repair} piece={method} />
          ) : (
            <DonorLine repair={repair} />
          )}
        </Line>
      )}
    </Card>
  );
}

function NextRepair() {
  const { bench } = useBench();
  const { tool, drawing } = useBenchState((s) => ({
    tool: s.tool,
    drawing: s.draft !== null && (s.tool.shape === 'chain' || s.tool.shape === 'outline'),
  }));
  return (
    <Card aria-label="Method card">
      <Line>
        <Title>Next repair</Title>
        <Gap />
        <MethodChoices chosen={tool.method} onChoose={(kind) => chooseMethod(bench, kind)} />
      </Line>
      <Line>
        <Choices
          aria-label="Draw"
          selectionMode="single"
          disallowEmptySelection
          selectedKeys={[tool.shape]}
          onSelectionChange={(keys) => {
            bench.set({ draft: null });
            bench.setTool({ shape: [...keys][0] as Shape });
          }}
        >
          {SHAPES.map((id) => (
            <Choice key={id} id={id}>
              {SHAPE_NAMES[id]}
            </Choice>
          ))}
        </Choices>
      </Line>
      <Dials key="next" repair={null} />
      <Line>
        {drawing ? (
          <DraftLine />
        ) : tool.method === 'clone' || tool.method === 'graft' ? (
          <DonorLine repair={null} />
        ) : (
          <>
            <Caption>{METHOD_HINTS[tool.method] ?? HINTS[tool.shape]}</Caption>
            {tool.method === 'patch' && <PatchChoices repair={null} />}
          </>
        )}
      </Line>
    </Card>
  );
}

function MethodChoices({
  chosen,
  onChoose,
}: {
  readonly chosen: MethodKind;
  onChoose(kind: MethodKind): void;
}) {
  return (
    <Choices
      aria-label="Method"
      selectionMode="single"
      disallowEmptySelection
      selectedKeys={[chosen]}
      onSelectionChange={(keys) => onChoose([...keys][0] as MethodKind)}
    >
      {METHODS.map((id) => (
        <Choice key={id} id={id}>
          {METHOD_NAMES[id]}
        </Choice>
      ))}
    </Choices>
  );
}
