import { METHOD_NAMES } from '@tersum/document';
import { isLine } from '@tersum/core';
import type { Repair } from '@tersum/document';
import useSWR from 'swr';
import { getAdvice } from '../../api/pictures.js';
import { Caption, Figure, Push } from '../../look/parts.js';
import { useBench, useBenchState } from '../model/context.js';
import { Line } from './lines.js';
import { beQuiet, takeAdvice } from './settings.js';

/** What is advised for the site as drawn, with its reason; quiet once the person has chosen otherwise. */
export function AdviceLine({ repair }: { readonly repair: Repair }) {
  const { bench } = useBench();
  const { pictureId, quiet } = useBenchState((s) => ({
    pictureId: s.pictureId,
    quiet: s.quiet.has(repair.id),
  }));
  const drawn = ['clone', 'graft', 'fill'].includes(repair.method.kind) && !quiet;
  const key = drawn ? ['advice', pictureId, JSON.stringify([repair.site, repair.width])] : null;
  const { data, isLoading } = useSWR(key, () => getAdvice(pictureId, repair), {
    revalidateOnFocus: false,
    keepPreviousData: false,
  });
  const advice = data?.advice;
  if (!drawn) return null;
  // The line keeps its place while it is measured: nothing jumps under the pointer.
  if (!advice || !data.facts)
    return (
      <Line>
        <Caption role="note">{isLoading ? 'Measuring the site…' : ''}</Caption>
      </Line>
    );
  const { defectWidth } = data.facts;
  // An area has no width to be advised.
  const width = isLine(repair.site) ? advice.width : null;
  const followed =
    advice.method === repair.method.kind && (width === null || Math.abs(width - repair.width) <= 2);
  return (
    <Line>
      <Caption role="note">
        {advice.reason}
        {defectWidth !== null && (
          <>
            {'. Defect '}
            <Figure>{Math.round(defectWidth)} px</Figure>
            {' wide'}
          </>
        )}
      </Caption>
      {!followed && (
        <>
          <Push onPress={() => void takeAdvice(bench, repair, { ...advice, width })}>
            {adviceWords(advice.method, width, repair)}
          </Push>
          <Push onPress={() => beQuiet(bench, repair.id)}>No, thanks</Push>
        </>
      )}
    </Line>
  );
}

function adviceWords(
  method: 'clone' | 'graft' | 'fill',
  width: number | null,
  repair: Repair,
): string {
  const name = METHOD_NAMES[method];
  const wide = width !== null && Math.abs(width - repair.width) > 2 ? `, ${width} px wide` : '';
  return `${name} it${wide}`;
}
