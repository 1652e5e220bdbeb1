import type { Plane } from '../../raster/plane.js';
import { strokePixels } from '../stroke-mask.js';
import type { Mesh } from './mesh.js';

/** A stretch of a wire of a mesh, from break to break. */
export interface MeshSite {
  readonly pixels: Int32Array;
  readonly line: { readonly xs: number[]; readonly ys: number[]; readonly widths: number[] };
}

/** A mask a little wider than the wire, px. */
const WIDER = 1;

/** The stretches of all wires of a mesh that are to be seen. */
export function meshSites(mesh: Mesh, plane: Plane): MeshSite[] {
  return mesh.wires.flatMap(({ xs, ys, widths, shown }) => {
    const sites: MeshSite[] = [];
    let line: MeshSite['line'] = { xs: [], ys: [], widths: [] };
    const close = (): void => {
      if (line.xs.length > 1) {
        const pixels = strokePixels(line, plane, WIDER);
        if (pixels.length) sites.push({ pixels, line });
      }
      line = { xs: [], ys: [], widths: [] };
    };
    for (let i = 0; i < xs.length; i++) {
      if (!shown[i]) {
        close();
        continue;
      }
      line.xs.push(xs[i]!);
      line.ys.push(ys[i]!);
      line.widths.push(widths[i]!);
    }
    close();
    return sites;
  });
}
