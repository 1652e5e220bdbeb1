import type { Repair } from '@tersum/document';
import { WIDTH_LIMITS } from '@tersum/document';
import { useState } from 'react';
import styled from 'styled-components';
import { Dial } from '../../look/Dial.js';
import { useBench, useBenchState } from '../model/context.js';
import { repairEdit } from '../model/repairs.js';
import type { Settings } from './settings.js';
import { trySetting, withSetting } from './settings.js';

/** Width, softness, flow and strength: of a repair that is open, or of the next one. */
export function Dials({ repair }: { readonly repair: Repair | null }) {
  const { bench } = useBench();
  const tool = useBenchState((s) => s.tool);
  const [held, setHeld] = useState<Partial<Settings>>({});
  const from: Settings = repair ? { ...pickSettings(repair), ...held } : pickSettings(tool);
  const dial = (setting: keyof Settings) => ({
    onChange(shown: number) {
      const value = setting === 'width' ? shown : shown / 100;
      if (!repair) return bench.setTool({ [setting]: value });
      setHeld((h) => ({ ...h, [setting]: value }));
      trySetting(bench, repair, setting, value);
    },
    onDone(shown: number) {
      if (!repair) return;
      const value = setting === 'width' ? shown : shown / 100;
      const label = `Set ${setting}`;
      void bench
        .change(label, [repairEdit(withSetting(repair, setting, value))])
        .then(() => setHeld(({ [setting]: _, ...rest }) => rest));
    },
  });
  const percent = { least: 0, most: 100, unit: '%' } as const;
  return (
    <Grid>
      <Dial
        label="Width"
        unit="px"
        least={WIDTH_LIMITS.least}
        most={400}
        bent
        keys=", and ."
        value={Math.round(from.width)}
        {...dial('width')}
      />
      <Dial
        label="Softness"
        keys="; and ’"
        {...percent}
        value={Math.round(from.softness * 100)}
        {...dial('softness')}
      />
      <Dial
        label="Flow"
        {...percent}
        least={1}
        value={Math.round(from.flow * 100)}
        {...dial('flow')}
      />
      <Dial
        label="Strength"
        hint="Usual: 75-80 % for lines near eyes, 70 % for patches"
        {...percent}
        value={Math.round(from.strength * 100)}
        {...dial('strength')}
      />
    </Grid>
  );
}

function pickSettings({ width, softness, flow, strength }: Settings): Settings {
  return { width, softness, flow, strength };
}

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 24px;
`;
