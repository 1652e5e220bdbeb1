import { randomUUID } from 'node:crypto';
import type { FindingKind } from '@tersum/core';
import type { DocketFinding, Edit, Layer, Records, Repair, Site } from '@tersum/document';
import { plainFill } from '@tersum/document';
import { UserProblem } from '@tersum/codec';

/** Names of the layers that sweeps go on. */
export const SWEEP_LAYERS: Record<FindingKind, string> = {
  specks: 'Specks',
  lines: 'Lines',
  creases: 'Creases',
  losses: 'Losses',
  stains: 'Stains',
  ink: 'Ink',
  wires: 'Wires',
  mesh: 'Mesh',
  pulls: 'Pulls',
};

type Part = Extract<Site, { kind: 'parts' }>['parts'][number];

/** Parts of one site at most. */
const MOST_PARTS = 2000;
/** Room between positions, so that a record can come between others. */
const BETWEEN = 1;

/** A sweep as edits, and which repair mends which findings. */
export interface Sweep {
  readonly label: string;
  readonly edits: Edit[];
  readonly links: { readonly repairId: string; readonly ids: string[] }[];
}

/** One repair for every kind (more where there are very many parts), on the kind's layer, in the order of work. */
export function sweepOf(records: Records, findings: readonly DocketFinding[]): Sweep {
  if (!findings.length) throw new UserProblem(422, 'None of these findings is open any more.');
  const edits: Edit[] = [];
  const links: Sweep['links'] = [];
  const kinds = [...new Set(findings.map(({ kind }) => kind))];
  let top = Math.max(0, ...records.layers.map((l) => l.position));
  for (const kind of kinds) {
    const layer: Layer = records.layers.find((l) => l.name === SWEEP_LAYERS[kind]) ?? {
      id: randomUUID(),
      name: SWEEP_LAYERS[kind],
      visible: true,
      position: (top += BETWEEN),
    };
    if (!records.layers.includes(layer))
      edits.push({ entity: 'layer', id: layer.id, after: layer });
    let position = Math.max(
      0,
      ...records.repairs.filter((r) => r.layerId === layer.id).map((r) => r.position),
    );
    for (const group of groupsOf(findings.filter((f) => f.kind === kind))) {
      const repair = repairOf(group, layer.id, (position += BETWEEN));
      edits.push({ entity: 'repair', id: repair.id, after: repair });
      links.push({ repairId: repair.id, ids: group.map(({ id }) => id) });
    }
  }
  const label = findings.length === 1 ? `Mend one finding` : `Mend ${findings.length} findings`;
  return { label, edits, links };
}

function groupsOf(findings: readonly DocketFinding[]): DocketFinding[][] {
  const groups: DocketFinding[][] = [];
  let room = 0;
  for (const finding of findings) {
    if (finding.outlines.length > room) {
      groups.push([]);
      room = MOST_PARTS;
    }
    groups.at(-1)!.push(finding);
    room -= finding.outlines.length;
  }
  return groups;
}

function partsOf({ outlines }: DocketFinding): Part[] {
  return outlines.map((points) => ({ shape: { kind: 'outline', points }, width: 1 }));
}

function repairOf(findings: readonly DocketFinding[], layerId: string, position: number): Repair {
  const [first] = findings as [DocketFinding];
  const count = findings.length;
  return {
    id: randomUUID(),
    layerId,
    position,
    enabled: true,
    site: { kind: 'parts', parts: findings.flatMap(partsOf) },
    width: Math.max(1, Math.round(first.size)),
    softness: 0,
    flow: 1,
    strength: 1,
    method: plainFill(randomUUID()),
    reason:
      count === 1
        ? first.advice.reason.slice(0, 400)
        : `${count} ${SWEEP_LAYERS[first.kind].toLowerCase()} in one sweep`,
    createdAt: new Date().toISOString(),
  };
}

/**
 * Takes a finding's parts out of the repair that mends it with others.
 * @param mend whether it becomes a repair of its own, right above
 */
export function takenOut(
  repair: Repair,
  finding: DocketFinding,
  mend: boolean,
): { edits: Edit[]; own: Repair | null } {
  if (repair.site.kind !== 'parts')
    throw new UserProblem(422, 'This finding is mended by itself already.');
  const own = new Set(finding.outlines.map((o) => JSON.stringify(o)));
  const rest = repair.site.parts.filter(
    ({ shape }) => shape.kind !== 'outline' || !own.has(JSON.stringify(shape.points)),
  );
  if (rest.length === repair.site.parts.length)
    throw new UserProblem(
      422,
      'This repair was changed by hand: it no longer has this finding in it.',
    );
  if (!rest.length && mend) throw new UserProblem(422, 'This finding is mended by itself already.');
  const single = mend
    ? { ...repairOf([finding], repair.layerId, repair.position + BETWEEN / 1024) }
    : null;
  const { method } = repair;
  const left: Repair = {
    ...repair,
    site: { kind: 'parts', parts: rest },
    // A fill of other pixels is another search.
    method: method.kind === 'fill' ? { ...method, search: randomUUID() } : method,
  };
  return {
    edits: [
      { entity: 'repair', id: repair.id, after: rest.length ? left : null },
      ...(single ? [{ entity: 'repair' as const, id: single.id, after: single }] : []),
    ],
    own: single,
  };
}
