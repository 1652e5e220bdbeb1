import type { Levels, ToneAct, ToneActOf } from '@tersum/core';
import { isPlain, NO_LEVELS } from '@tersum/core';
import { useState } from 'react';
import { Dial } from '../../look/Dial.js';
import { Choice, Choices, Push } from '../../look/parts.js';
import { AutoLevels } from './AutoLevels.js';

interface LevelsCardProps {
  readonly act: ToneActOf<'levels'>;
  onTry(act: ToneAct): void;
  onKeep(act: ToneAct): void;
}

const CHANNELS = ['all', 'red', 'green', 'blue'] as const;

/** Black, white and middle points, of all channels or of one. */
export function LevelsCard({ act, onTry, onKeep }: LevelsCardProps) {
  const [channel, setChannel] = useState<(typeof CHANNELS)[number]>(() => {
    // Opens where something is set.
    const at = isPlain(act.all) ? act.channels.findIndex((l) => !isPlain(l)) : -1;
    return CHANNELS[at + 1]!;
  });
  const at = CHANNELS.indexOf(channel) - 1;
  const levels = at < 0 ? act.all : act.channels[at]!;
  const withLevels = (next: Levels): ToneAct => {
    if (at < 0) return { ...act, all: next };
    const channels = act.channels.map((l, c) => (c === at ? next : l));
    return { ...act, channels: channels as unknown as typeof act.channels };
  };
  const dial = (
    key: keyof Levels,
    label: string,
    least: number,
    most: number,
    times: number,
    step: number,
    unit: string,
  ) => {
    const changed = (v: number): ToneAct => {
      const next = { ...levels, [key]: v / times };
      // The two ends never meet.
      if (key === 'black') next.black = Math.min(next.black, levels.white - 0.02);
      if (key === 'white') next.white = Math.max(next.white, levels.black + 0.02);
      return withLevels(next);
    };
    return (
      <Dial
        label={label}
        least={least}
        most={most}
        step={step}
        unit={unit}
        value={Math.round((levels[key] * times) / step) * step}
        onChange={(v) => onTry(changed(v))}
        onDone={(v) => onKeep(changed(v))}
      />
    );
  };
  return (
    <>
      <Choices
        aria-label="Channel"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={[channel]}
        onSelectionChange={(keys) => setChannel([...keys][0] as typeof channel)}
      >
        {CHANNELS.map((c) => (
          <Choice key={c} id={c}>
            {c[0]!.toUpperCase() + c.slice(1)}
          </Choice>
        ))}
      </Choices>
      {dial('black', 'Black point', -50, 242, 255, 0.5, '/255')}
      {dial('gamma', 'Middle', 0.2, 5, 1, 0.01, 'γ')}
      {dial('white', 'White point', 13, 382, 255, 0.5, '/255')}
      <Push onPress={() => onKeep(withLevels(NO_LEVELS))}>Back to plain</Push>
      <AutoLevels />
    </>
  );
}
