import type { Layer, Records } from '@tersum/document';
import { layersInOrder, repairsOfLayer } from '@tersum/document';
import { ArrowDown, ArrowUp, Eye, EyeOff, MoreHorizontal, Pencil, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { MenuTrigger, Popover } from 'react-aria-components';
import styled from 'styled-components';
import { Item, List } from '../../look/MenuSheet.js';
import { Figure, Quiet } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { useBench, useBenchState } from '../model/context.js';
import { docketOrder, layerEdit, letterOf, swapEdits } from '../model/repairs.js';
import { RepairRow } from './RepairRow.js';

interface LayerGroupProps {
  readonly layer: Layer;
  readonly records: Records;
}

/** One repair layer and its repairs. */
export function LayerGroup({ layer, records }: LayerGroupProps) {
  const { bench } = useBench();
  const [naming, setNaming] = useState(false);
  const target = useBenchState((s) => s.tool.layerId);
  const order = docketOrder(records);
  const repairs = repairsOfLayer(records, layer.id);
  const layers = layersInOrder(records);
  const at = layers.findIndex((l) => l.id === layer.id);

  const rename = (name: string): void => {
    setNaming(false);
    const trimmed = name.trim();
    if (trimmed && trimmed !== layer.name)
      void bench.change('Rename layer', [layerEdit({ ...layer, name: trimmed })]);
  };
  const act = (key: string): void => {
    if (key === 'rename') setNaming(true);
    if (key === 'up') void bench.change('Move layer up', swapEdits(layers, at, 1, layerEdit));
    if (key === 'down') void bench.change('Move layer down', swapEdits(layers, at, -1, layerEdit));
    if (key === 'delete')
      void bench.change('Delete layer', [
        ...repairs.map((r) => ({ entity: 'repair' as const, id: r.id, after: null })),
        { entity: 'layer', id: layer.id, after: null },
      ]);
  };

  return (
    <Group aria-label={`Layer ${layer.name}`}>
      <Head data-target={target === layer.id}>
        <Quiet
          aria-label={layer.visible ? `Hide layer ${layer.name}` : `Show layer ${layer.name}`}
          onPress={() =>
            void bench.change(layer.visible ? 'Hide layer' : 'Show layer', [
              layerEdit({ ...layer, visible: !layer.visible }),
            ])
          }
        >
          {layer.visible ? <Eye size={15} aria-hidden /> : <EyeOff size={15} aria-hidden />}
        </Quiet>
        {naming ? (
          <input
            defaultValue={layer.name}
            aria-label="Layer name"
            maxLength={80}
            autoFocus
            onFocus={(event) => event.target.select()}
            onBlur={(event) => rename(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === 'Enter') event.currentTarget.blur();
              if (event.key === 'Escape') setNaming(false);
            }}
          />
        ) : (
          <Name
            type="button"
            title="New repairs go to this layer"
            aria-pressed={target === layer.id}
            onClick={() => bench.setTool({ layerId: layer.id })}
            onDoubleClick={() => setNaming(true)}
          >
            {layer.name}
          </Name>
        )}
        {!layer.visible && <Hidden>hidden</Hidden>}
        <Figure>{repairs.length}</Figure>
        <MenuTrigger>
          <Quiet aria-label={`More for layer ${layer.name}`}>
            <MoreHorizontal size={15} aria-hidden />
          </Quiet>
          <Popover placement="bottom end">
            <List onAction={(key) => act(String(key))}>
              <Item id="rename">
                <Pencil size={13} aria-hidden /> Rename
              </Item>
              <Item id="up" isDisabled={at === layers.length - 1}>
                <ArrowUp size={13} aria-hidden /> Move up
              </Item>
              <Item id="down" isDisabled={at === 0}>
                <ArrowDown size={13} aria-hidden /> Move down
              </Item>
              <Item id="delete">
                <Trash2 size={13} aria-hidden /> Delete with its repairs
              </Item>
            </List>
          </Popover>
        </MenuTrigger>
      </Head>
      {repairs.map((repair, index) => (
        <RepairRow
          key={repair.id}
          repair={repair}
          isFirst={index === 0}
          isLast={index === repairs.length - 1}
          letter={letterOf(order.indexOf(repair))}
          dimmed={!layer.visible}
        />
      ))}
    </Group>
  );
}

const Group = styled.section`
  border-bottom: 1px solid ${look.hairline};
`;

const Head = styled.div`
  display: flex;
  align-items: center;
  gap: 4px;
  padding: 4px 8px 4px 12px;
  background: ${look.paperDeep};
  border-left: 3px solid transparent;
  &[data-target='true'] {
    border-left-color: ${look.done};
  }
  input {
    flex: 1;
    min-width: 0;
    border: 1px solid ${look.done};
    background: #fff;
    padding: 2px 4px;
  }
`;

const Name = styled.button`
  flex: 1;
  min-width: 0;
  text-align: left;
  border: 0;
  background: none;
  padding: 2px 4px;
  font-weight: 600;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
`;

const Hidden = styled.span`
  font-size: 11px;
  color: ${look.todo};
  margin-right: 6px;
`;
