import type { Repair } from '@tersum/document';
import { Choice, Choices } from '../../look/parts.js';
import { useBench, useBenchState } from '../model/context.js';
import { repairEdit } from '../model/repairs.js';

/** How a patch is laid in, and, for the next one, which area is outlined first. */
export function PatchChoices({ repair }: { readonly repair: Repair | null }) {
  const { bench } = useBench();
  const { as, from } = useBenchState((s) => ({ as: s.tool.patchAs, from: s.tool.patchFrom }));
  const method = repair?.method.kind === 'patch' ? repair.method : null;
  const lay = (kind: 'clone' | 'graft'): void => {
    bench.setTool({ patchAs: kind });
    if (repair && method)
      void bench.change('Lay the patch in otherwise', [
        repairEdit({ ...repair, method: { ...method, as: kind } }),
      ]);
  };
  return (
    <>
      <Choices
        aria-label="Lay in"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={[method?.as ?? as]}
        onSelectionChange={(keys) => lay([...keys][0] as 'clone' | 'graft')}
      >
        <Choice id="graft">Tone matched</Choice>
        <Choice id="clone">As it is</Choice>
      </Choices>
      {!repair && (
        <Choices
          aria-label="Outline first"
          selectionMode="single"
          disallowEmptySelection
          selectedKeys={[from]}
          onSelectionChange={(keys) => bench.setTool({ patchFrom: [...keys][0] as 'bad' | 'good' })}
        >
          <Choice id="bad">Outline the bad area</Choice>
          <Choice id="good">Outline the good area</Choice>
        </Choices>
      )}
    </>
  );
}
