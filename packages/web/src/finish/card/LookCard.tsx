import { CUBE, cubeOf, cubeText, neutralCube, resized } from '@tersum/core';
import type { Tone } from '@tersum/document';
import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import styled from 'styled-components';
import { Caption, Push, Quiet, Warning } from '../../look/parts.js';
import { useFinish } from '../model/context.js';

/** Side of the neutral table that is handed out, px: a cube of 64 colours an edge. */
const SIDE = 512;
/** A look is laid in at half strength at first (common practice). */
const STRENGTH = 0.5;

/** Takes a colour look from a lookup-table picture. */
export function LookCard({ step }: { readonly step: Tone }) {
  const finish = useFinish();
  const [problem, setProblem] = useState<string | null>(null);
  const { act } = step;
  if (act.kind !== 'look') return null;
  const take = async (file: File): Promise<void> => {
    const rgb = await pixelsOf(file).catch(() => null);
    const cube = rgb && cubeOf(rgb);
    if (!cube) {
      setProblem(
        'This is no lookup table: its pixels must be a cube of colours, 512 × 512 px for instance. Save the neutral one, change its colours, and take that.',
      );
      return;
    }
    setProblem(null);
    const name = file.name.replace(/\.[^.]*$/, '').slice(0, 120);
    const table = cubeText(resized(cube, CUBE));
    const strength = act.name ? step.strength : STRENGTH;
    await finish.keep({ ...step, strength, act: { ...act, name, table } }, 'Take a colour look');
  };
  return (
    <>
      <Line>
        <FileTrigger
          acceptedFileTypes={['.png', '.tif', '.webp']}
          onSelect={(files) => files?.[0] && void take(files[0])}
        >
          <Push>Take a table picture</Push>
        </FileTrigger>
        <Quiet onPress={() => void saveNeutral()}>Save a neutral one</Quiet>
      </Line>
      <Caption>
        {act.name
          ? `Colours of “${act.name}”.`
          : 'No table yet: colours stay as they are. A neutral table, coloured in any program, carries that look over.'}
      </Caption>
      {problem && <Warning>{problem}</Warning>}
    </>
  );
}

async function pixelsOf(file: File): Promise<Float32Array> {
  const bitmap = await createImageBitmap(file, { colorSpaceConversion: 'none' });
  const context = new OffscreenCanvas(bitmap.width, bitmap.height).getContext('2d')!;
  context.drawImage(bitmap, 0, 0);
  const { data } = context.getImageData(0, 0, bitmap.width, bitmap.height);
  const rgb = new Float32Array((data.length / 4) * 3);
  for (let p = 0; p < data.length / 4; p++)
    for (let c = 0; c < 3; c++) rgb[3 * p + c] = data[4 * p + c]! / 255;
  return rgb;
}

async function saveNeutral(): Promise<void> {
  const { values } = neutralCube(Math.round(Math.cbrt(SIDE * SIDE)));
  const canvas = new OffscreenCanvas(SIDE, SIDE);
  const context = canvas.getContext('2d')!;
  const image = context.createImageData(SIDE, SIDE);
  for (let p = 0; p < SIDE * SIDE; p++) {
    for (let c = 0; c < 3; c++) image.data[4 * p + c] = Math.round(255 * values[3 * p + c]!);
    image.data[4 * p + 3] = 255;
  }
  context.putImageData(image, 0, 0);
  const link = document.createElement('a');
  link.href = URL.createObjectURL(await canvas.convertToBlob({ type: 'image/png' }));
  link.download = 'neutral colours.png';
  link.click();
  URL.revokeObjectURL(link.href);
}

const Line = styled.div`
  display: flex;
  align-items: center;
  gap: 6px;
`;
