import type { Job, Making } from '@tersum/document';
import { PRINT_NAMES } from '@tersum/document';
import { useState } from 'react';
import styled from 'styled-components';
import { CautionNotes } from '../../reference/CautionNotes.js';
import { Dial } from '../../look/Dial.js';
import { Caption } from '../../look/parts.js';
import { OneOf } from '../../look/OneOf.js';
import { look } from '../../look/theme.js';
import { Field, Window } from '../../look/Window.js';
import { MakingFoot } from './MakingFoot.js';
import { useMaking } from './useMaking.js';

const DEVICES = { scanner: 'Scanner', stand: 'Copy stand', camera: 'Camera' } as const;
type Device = keyof typeof DEVICES;
type PrintName = (typeof PRINT_NAMES)[number];
const PRINTS: Record<PrintName, string> = {
  regatta: 'Regatta print, black and white',
  garden: 'Allotment print, colour',
  steps: 'Nettle Steps print, colour',
};
const ABOUT: Record<Device, string> = {
  scanner: 'Delivers a TIFF of an old print: a little askew, faded, creased and scratched.',
  stand:
    'Delivers photographs of a glossy print with the lamp’s reflection in another place each time.',
  camera: 'Delivers overlapping hand-held frames of the beach huts, each exposed differently.',
};
const PPI = [300, 600, 1200];

/** The simulated scanner, copy stand and camera of the demo; what they deliver comes in as a file would. */
export function DeviceWindow({ job, onClose }: { readonly job: Job; onClose(): void }) {
  const [device, setDevice] = useState<Device>('scanner');
  const [print, setPrint] = useState<PrintName>('regatta');
  const [ppi, setPpi] = useState(300);
  const [colour, setColour] = useState(true);
  const [bits, setBits] = useState<8 | 16>(16);
  const [glass, setGlass] = useState<'clean' | 'dirty'>('dirty');
  const [shots, setShots] = useState(3);
  const making = useMaking(job.id);
  const order: Making = {
    kind: 'simulated',
    order:
      device === 'scanner'
        ? { device, print, ppi, colour, bits, glass }
        : device === 'stand'
          ? { device, print, shots }
          : { device, shots },
  };
  return (
    <Window title="Simulated devices" isOpen width={480} onClose={onClose}>
      <Stamp>Simulated: no device is connected, and the prints are made up.</Stamp>
      <CautionNotes place="intake" />
      <Field as="div">
        <OneOf label="Device" options={DEVICES} value={device} onChange={(v) => setDevice(v)} />
        <Caption>{ABOUT[device]}</Caption>
      </Field>
      {device !== 'camera' && (
        <Field>
          <span>Print on the glass</span>
          <select value={print} onChange={(event) => setPrint(event.target.value as PrintName)}>
            {PRINT_NAMES.map((id) => (
              <option key={id} value={id}>
                {PRINTS[id]}
              </option>
            ))}
          </select>
        </Field>
      )}
      {device === 'scanner' ? (
        <>
          <Field as="div">
            <span>Resolution</span>
            <OneOf
              label="Resolution"
              options={Object.fromEntries(PPI.map((v) => [v, `${v} ppi`]))}
              value={String(ppi)}
              onChange={(v) => setPpi(Number(v))}
            />
            {ppi > 600 && <Caption>The print itself holds no detail beyond 600 ppi.</Caption>}
          </Field>
          <Three>
            <Field as="div">
              <span>Mode</span>
              <OneOf
                label="Mode"
                options={{ colour: 'Colour', grey: 'Grey' }}
                value={colour ? 'colour' : 'grey'}
                onChange={(v) => setColour(v === 'colour')}
              />
            </Field>
            <Field as="div">
              <span>Depth</span>
              <OneOf
                label="Depth"
                options={{ 8: '8 bit', 16: '16 bit' }}
                value={String(bits)}
                onChange={(v) => setBits(v === '16' ? 16 : 8)}
              />
            </Field>
            <Field as="div">
              <span>Glass</span>
              <OneOf
                label="Glass"
                options={{ clean: 'Clean', dirty: 'Dirty' }}
                value={glass}
                onChange={(v) => setGlass(v)}
              />
            </Field>
          </Three>
        </>
      ) : (
        <Dial label="Photographs" unit="" least={2} most={5} value={shots} onChange={setShots} />
      )}
      <MakingFoot
        making={making}
        order={order}
        verb={device === 'scanner' ? 'Scan' : 'Photograph'}
        onClose={onClose}
      />
    </Window>
  );
}

const Stamp = styled.p`
  border: 1px dashed ${look.todo};
  color: ${look.todo};
  border-radius: ${look.corner};
  padding: 4px 8px;
  margin-bottom: 12px;
  font-size: 12px;
`;

const Three = styled.div`
  display: grid;
  grid-template-columns: repeat(3, auto);
  gap: 12px;
`;
