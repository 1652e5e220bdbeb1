import type { Method, Repair } from '@tersum/document';
import { Caption, Choice, Choices, MainPush, Push, Quiet, Toggle } from '../../look/parts.js';
import { useBench, useBenchState } from '../model/context.js';
import { repairEdit } from '../model/repairs.js';
import type { PieceHand } from '../model/state.js';
import { Gap } from './lines.js';

type PieceMethod = Extract<Method, { readonly kind: 'piece' }>;

const HANDS: readonly (readonly [PieceHand, string])[] = [
  ['move', 'Place'],
  ['corners', 'Corners'],
  ['pins', 'Pins'],
  ['show', 'Reveal'],
  ['hide', 'Hide'],
];

const WORDS: Record<PieceHand, string> = {
  move: 'Drag it to its place; the handles turn and scale it.',
  corners: 'Drag a corner to draw it off.',
  pins: 'Click sets a pin, dragging bends, double-click takes it out.',
  show: 'Paint where the piece should show.',
  hide: 'Paint where the piece should not show.',
};

/** What can be done with a piece: place, bend, reveal, match. */
export function PieceTools({
  repair,
  piece,
}: {
  readonly repair: Repair;
  readonly piece: PieceMethod;
}) {
  const { bench } = useBench();
  const hand = useBenchState((s) => s.pieceHand);
  const set = (label: string, change: Partial<PieceMethod>, more: Partial<Repair> = {}): void =>
    void bench.change(label, [repairEdit({ ...repair, ...more, method: { ...piece, ...change } })]);
  const bent = piece.pins.length > 0 || piece.corners !== null || piece.skew !== 0;
  return (
    <>
      <Choices
        aria-label="Work on the piece"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={[hand]}
        onSelectionChange={(keys) => bench.set({ pieceHand: [...keys][0] as PieceHand })}
      >
        {HANDS.map(([id, name]) => (
          <Choice key={id} id={id}>
            {name}
          </Choice>
        ))}
      </Choices>
      <Caption>{WORDS[hand]}</Caption>
      <Gap />
      {(hand === 'show' || hand === 'hide') && (
        <Push
          onPress={() =>
            set(piece.hidden ? 'Show the whole piece' : 'Hide the whole piece', {
              hidden: !piece.hidden,
              reveal: [],
            })
          }
        >
          {piece.hidden ? 'Show all' : 'Hide all'}
        </Push>
      )}
      {bent && (
        <Quiet onPress={() => set('Straighten a piece', { pins: [], corners: null, skew: 0 })}>
          Straighten
        </Quiet>
      )}
      <Toggle
        aria-label="Match tone"
        isSelected={piece.matchTone}
        onChange={(matchTone) => set('Match the tone of a piece', { matchTone })}
      >
        Match tone
      </Toggle>
      {repair.strength < 1 && (
        <MainPush onPress={() => set('Lay a piece down', {}, { strength: 1 })}>Lay down</MainPush>
      )}
    </>
  );
}
