import type { Tone } from '@tersum/document';
import { ArrowDown, ArrowUp, Eye, EyeOff, Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { MenuTrigger, Popover } from 'react-aria-components';
import styled from 'styled-components';
import { useBenchState } from '../../bench/model/context.js';
import { Item, List } from '../../look/MenuSheet.js';
import { Caption, Figure, MainPush, Push, Quiet } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { ChannelsWindow } from '../ChannelsWindow.js';
import { ACT_KINDS, ACTS } from '../model/acts.js';
import { useFinish, useFinishState } from '../model/context.js';

/** The tone stack: steps in the order they work, the first one on top. */
export function StepList() {
  const finish = useFinish();
  useBenchState((s) => s.records?.tones);
  const loading = useBenchState((s) => s.records === null);
  const { selected, busy } = useFinishState((s) => ({ selected: s.selected, busy: s.busy }));
  const steps = finish.steps();
  const [channels, setChannels] = useState(false);
  return (
    <Column aria-label="Tone steps">
      <Head>
        <MenuTrigger>
          <MainPush isDisabled={loading}>
            <Plus size={14} aria-hidden /> Add step
          </MainPush>
          <Popover placement="bottom start">
            <List
              aria-label="Kinds of steps"
              onAction={(key) => void finish.add(key as Tone['act']['kind'])}
            >
              {ACT_KINDS.map((kind) => (
                <Item key={kind} id={kind} textValue={ACTS[kind].name}>
                  <Entry>
                    <span>{ACTS[kind].name}</span>
                    <Caption>{ACTS[kind].use}</Caption>
                  </Entry>
                </Item>
              ))}
            </List>
          </Popover>
        </MenuTrigger>
        <Push isDisabled={loading || busy !== null} onPress={() => void finish.undoFading()}>
          {busy ?? 'Undo fading'}
        </Push>
        <Push isDisabled={loading} onPress={() => setChannels(true)}>
          Channels
        </Push>
      </Head>
      {channels && <ChannelsWindow onClose={() => setChannels(false)} />}
      {!loading && steps.length === 0 && (
        <Empty>
          No tone steps yet. The picture is delivered with the tones it came with.{' '}
          <em>Undo fading</em> measures each channel and adds the steps that open it.
        </Empty>
      )}
      <ol>
        {steps.map((step, k) => (
          <StepRow
            key={step.id}
            step={step}
            number={k + 1}
            open={step.id === selected}
            last={k === steps.length - 1}
          />
        ))}
      </ol>
    </Column>
  );
}

interface StepRowProps {
  readonly step: Tone;
  readonly number: number;
  readonly open: boolean;
  readonly last: boolean;
}

function StepRow({ step, number, open, last }: StepRowProps) {
  const finish = useFinish();
  const { name } = ACTS[step.act.kind];
  return (
    <Row data-open={open}>
      <Quiet
        aria-label={step.enabled ? `Switch ${name} off` : `Switch ${name} on`}
        onPress={() =>
          void finish.keep(
            { ...step, enabled: !step.enabled },
            `${step.enabled ? 'Switch off' : 'Switch on'} ${name.toLowerCase()}`,
          )
        }
      >
        {step.enabled ? <Eye size={15} aria-hidden /> : <EyeOff size={15} aria-hidden />}
      </Quiet>
      <Name type="button" aria-pressed={open} onClick={() => finish.select(open ? null : step.id)}>
        <Figure>{number}</Figure> {name}
        {step.mask && <Caption> in places</Caption>}
        {!step.enabled && <Caption> off</Caption>}
      </Name>
      {step.strength < 1 && <Figure>{Math.round(step.strength * 100)} %</Figure>}
      {open && (
        <>
          <Quiet
            aria-label={`Move ${name} earlier`}
            isDisabled={number === 1}
            onPress={() => void finish.move(step.id, -1)}
          >
            <ArrowUp size={14} aria-hidden />
          </Quiet>
          <Quiet
            aria-label={`Move ${name} later`}
            isDisabled={last}
            onPress={() => void finish.move(step.id, 1)}
          >
            <ArrowDown size={14} aria-hidden />
          </Quiet>
          <Quiet aria-label={`Delete ${name}`} onPress={() => void finish.remove(step.id)}>
            <Trash2 size={14} aria-hidden />
          </Quiet>
        </>
      )}
    </Row>
  );
}

const Column = styled.section`
  min-height: 0;
  overflow: auto;
  ol {
    list-style: none;
    margin: 0;
    padding: 0;
  }
`;

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  padding: 12px;
`;

const Entry = styled.span`
  display: grid;
`;

const Empty = styled.p`
  padding: 4px 14px 12px;
  color: ${look.inkSoft};
  em {
    font-style: normal;
    color: ${look.ink};
  }
`;

const Row = styled.li`
  display: flex;
  align-items: center;
  gap: 2px;
  min-height: 40px;
  padding: 0 8px 0 6px;
  border-top: 1px solid ${look.hairline};
  &[data-open='true'] {
    background: ${look.paperHigh};
    box-shadow: inset 3px 0 ${look.done};
  }
`;

const Name = styled.button`
  flex: 1;
  min-width: 0;
  text-align: left;
  border: 0;
  background: transparent;
  padding: 8px 4px;
  font: inherit;
  color: inherit;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
`;
