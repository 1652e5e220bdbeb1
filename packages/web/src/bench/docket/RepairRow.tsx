import type { Repair } from '@tersum/document';
import { layersInOrder, METHOD_NAMES, repairsOfLayer, sidesOf, siteBox } from '@tersum/document';
import { MoreHorizontal } from 'lucide-react';
import { memo, useEffect, useRef } from 'react';
import { MenuTrigger, Popover, Separator } from 'react-aria-components';
import styled from 'styled-components';
import { Item, List } from '../../look/MenuSheet.js';
import { Figure, Quiet } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { useJobs } from '../../api/jobs.js';
import { useBench, useBenchState } from '../model/context.js';
import { copyToPicture } from '../model/elsewhere.js';
import { canSplit, split } from '../model/many.js';
import { placeOf } from '../model/place.js';
import { positionAfter, repairEdit, siteLength, siteName, swapEdits } from '../model/repairs.js';
import { PlacePair } from './PlacePair.js';
import { Figures, Words } from './row-parts.js';

interface RepairRowProps {
  readonly repair: Repair;
  readonly isFirst: boolean;
  readonly isLast: boolean;
  readonly letter: string;
  readonly dimmed: boolean;
}

/** One repair on the docket: its place before and after, what it is, and how it stands. */
export const RepairRow = memo(function RepairRow(props: RepairRowProps) {
  const { repair, isFirst, isLast, letter, dimmed } = props;
  const { bench } = useBench();
  const row = useRef<HTMLDivElement>(null);
  const { selected, failed, stale } = useBenchState((s) => ({
    selected: s.selected === repair.id || s.also.includes(repair.id),
    failed: s.view?.failed[repair.id] ?? null,
    stale: s.view?.donorChanged.includes(repair.id) ?? false,
  }));
  useEffect(() => {
    if (selected) row.current?.scrollIntoView({ block: 'nearest' });
  }, [selected]);
  const state = failed ? 'cannot be done' : stale ? 'donor changed' : repair.enabled ? '' : 'off';

  const act = (key: string): void => {
    const { records } = bench.store.getState();
    if (!records) return;
    const siblings = repairsOfLayer(records, repair.layerId);
    const index = siblings.findIndex((r) => r.id === repair.id);
    if (key === 'switch')
      void bench.change(repair.enabled ? 'Switch off a repair' : 'Switch on a repair', [
        repairEdit({ ...repair, enabled: !repair.enabled }),
      ]);
    else if (key === 'earlier')
      void bench.change('Move earlier', swapEdits(siblings, index, -1, repairEdit));
    else if (key === 'later')
      void bench.change('Move later', swapEdits(siblings, index, 1, repairEdit));
    else if (key === 'delete')
      void bench.change('Delete a repair', [{ entity: 'repair', id: repair.id, after: null }]);
    else if (key === 'split') {
      const edits = split(repair);
      if (edits) void bench.change('Split a repair', edits);
    } else if (key.startsWith('copy ')) void copyToPicture(bench, [repair], key.slice(5));
    else if (key.startsWith('to ')) {
      const layerId = key.slice(3);
      const there = records.repairs.filter((r) => r.layerId === layerId);
      const moved = { ...repair, layerId, position: positionAfter(there) };
      void bench.change('Move to another layer', [repairEdit(moved)]);
    }
  };

  /** Opens this repair, alone or besides the ones that are open. */
  const pick = (besides: boolean): void => {
    const { selected: main, also } = bench.store.getState();
    if (!besides || !main)
      return bench.set({ selected: selected && !also.length ? null : repair.id, also: [] });
    if (main === repair.id) bench.set({ selected: also[0] ?? null, also: also.slice(1) });
    else
      bench.set({
        also: also.includes(repair.id)
          ? also.filter((id) => id !== repair.id)
          : [...also, repair.id],
      });
  };

  return (
    <Row ref={row} data-selected={selected} data-dimmed={dimmed || !repair.enabled}>
      <Pick
        type="button"
        aria-pressed={selected}
        aria-label={`${METHOD_NAMES[repair.method.kind]} ${letter}, ${siteName(repair)}${state ? `, ${state}` : ''}`}
        onClick={(event) => pick(event.shiftKey || event.ctrlKey || event.metaKey)}
      >
        <PlacePair {...placeOf(siteBox(repair))} repaired />
        <Words>
          <span>
            <b>{letter}</b> {METHOD_NAMES[repair.method.kind]}, {siteName(repair)}
          </span>
          <small data-alarm={!!failed || stale} title={failed ?? repair.reason}>
            {state || repair.reason || ' '}
          </small>
        </Words>
        <Figures>
          <Figure>
            {Math.round(sidesOf(repair.method) ? siteLength(repair) : repair.width)} px
          </Figure>
          <Figure>{Math.round(repair.strength * 100)} %</Figure>
        </Figures>
      </Pick>
      <MenuTrigger>
        <Quiet aria-label={`More for repair ${letter}`}>
          <MoreHorizontal size={14} aria-hidden />
        </Quiet>
        <Popover placement="bottom end">
          <List onAction={(key) => act(String(key))}>
            <Item id="switch">{repair.enabled ? 'Switch off' : 'Switch on'}</Item>
            <Item id="earlier" isDisabled={isFirst}>
              Move earlier
            </Item>
            <Item id="later" isDisabled={isLast}>
              Move later
            </Item>
            <Item id="split" isDisabled={!canSplit(repair)}>
              Split in two
            </Item>
            <OtherLayers layerId={repair.layerId} />
            <OtherPictures />
            <Separator />
            <Item id="delete">Delete</Item>
          </List>
        </Popover>
      </MenuTrigger>
    </Row>
  );
});

/** The other layers a repair can go to; drawn only while the menu is open. */
function OtherLayers({ layerId }: { readonly layerId: string }) {
  const records = useBenchState((s) => s.records);
  const others = records ? layersInOrder(records).filter((l) => l.id !== layerId) : [];
  return (
    <>
      {others.length > 0 && <Separator />}
      {others.map((layer) => (
        <Item key={layer.id} id={`to ${layer.id}`}>
          To layer “{layer.name}”
        </Item>
      ))}
    </>
  );
}

/** The other pictures of the job a repair can be copied to, in register. */
function OtherPictures() {
  const { picture } = useBenchState((s) => ({ picture: s.records?.picture }));
  const { data: jobs } = useJobs();
  const others =
    jobs?.find((job) => job.id === picture?.jobId)?.pictures.filter((p) => p.id !== picture?.id) ??
    [];
  return (
    <>
      {others.length > 0 && <Separator />}
      {others.map((other) => (
        <Item key={other.id} id={`copy ${other.id}`}>
          Copy to “{other.name}”
        </Item>
      ))}
    </>
  );
}

const Row = styled.div`
  display: flex;
  align-items: center;
  padding-right: 6px;
  border-left: 3px solid transparent;
  content-visibility: auto;
  contain-intrinsic-size: auto 46px;
  &[data-selected='true'] {
    background: ${look.doneSoft};
    border-left-color: ${look.done};
  }
  &[data-dimmed='true'] {
    opacity: 0.6;
  }
  &:hover {
    background: ${look.paperHigh};
  }
  &[data-selected='true']:hover {
    background: ${look.doneSoft};
  }
`;

const Pick = styled.button`
  flex: 1;
  min-width: 0;
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 4px 0 4px 12px;
  border: 0;
  background: none;
  text-align: left;
`;
