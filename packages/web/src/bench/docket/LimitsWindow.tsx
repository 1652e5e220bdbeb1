import type { TellKind, TellLimits } from '@tersum/core';
import { TELL_KINDS, TELL_LIMITS, TELL_RANGES } from '@tersum/core';
import { useState } from 'react';
import styled from 'styled-components';
import { messageOf } from '../../api/client.js';
import { setLimits, useLimits, useProof } from '../../api/proof.js';
import { Dial } from '../../look/Dial.js';
import { Figure, MainPush, Push, Warning } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { Actions, Window } from '../../look/Window.js';
import { TELL_WORDS } from '../model/tell-words.js';

interface LimitsProps {
  readonly pictureId: string;
  onClose(): void;
}

/** From which values on repairs tell, in all pictures of the house; what was measured is sifted anew at once. */
export function LimitsWindow({ pictureId, onClose }: LimitsProps) {
  const { data: kept } = useLimits();
  const { data } = useProof(pictureId, false);
  const [draft, setDraft] = useState<Partial<TellLimits>>({});
  const [problem, setProblem] = useState<string | null>(null);
  const keep = async (limits: TellLimits): Promise<void> => {
    try {
      await setLimits(limits, pictureId);
      setDraft({});
      setProblem(null);
    } catch (error) {
      setProblem(messageOf(error));
    }
  };
  const count = (kind: TellKind): number =>
    (data?.proof?.tells ?? []).filter((t) => t.kind === kind && !t.faint && !t.stands).length;
  return (
    <Window title="Limits of the proof" isOpen width={520} onClose={onClose}>
      <Word>
        The usual limits are those that random places of untouched photographs hardly ever pass.
        They hold for every picture of the house.
      </Word>
      {problem && <Warning>{problem}</Warning>}
      {kept && (
        <Grid>
          {TELL_KINDS.map((kind) => {
            const [one, other] = TELL_RANGES[kind];
            const { name, unit } = TELL_WORDS[kind];
            const told = count(kind);
            return (
              <li key={kind}>
                <Dial
                  label={name}
                  unit={unit}
                  value={draft[kind] ?? kept[kind]}
                  least={Math.min(one, other)}
                  most={Math.max(one, other)}
                  step={kind === 'repeat' ? 1 : 0.01}
                  hint={`Usual: ${TELL_LIMITS[kind]}`}
                  onChange={(v) => setDraft((d) => ({ ...d, [kind]: v }))}
                  onDone={(v) => void keep({ ...kept, ...draft, [kind]: v })}
                />
                <small>
                  usual {TELL_LIMITS[kind]} · <Figure>{told}</Figure>{' '}
                  {told === 1 ? 'tell' : 'tells'}
                </small>
              </li>
            );
          })}
        </Grid>
      )}
      <Actions>
        <Push onPress={() => void keep(TELL_LIMITS)}>Usual limits</Push>
        <MainPush onPress={onClose}>Done</MainPush>
      </Actions>
    </Window>
  );
}

const Word = styled.p`
  color: ${look.inkSoft};
  font-size: 12px;
  margin-bottom: 12px;
`;

const Grid = styled.ul`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px 28px;
  list-style: none;
  margin: 0;
  padding: 0;
  small {
    color: ${look.inkSoft};
    font-size: 11px;
  }
`;
