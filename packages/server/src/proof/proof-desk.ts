import { availableParallelism } from 'node:os';
import { frameOf } from '@tersum/core';
import type { KeptProofAnswer, ProofAnswer } from '@tersum/document';
import { proofBands, proofNames } from '@tersum/document';
import type { KeptTells } from '../db/schema.js';
import type { WorkPool } from '../pool/pool.js';
import type { Renderer } from '../render/renderer.js';
import type { KeptProof, ProofStore } from '../store/proofs.js';
import type { RecordStore } from '../store/records.js';

/** So many repairs are worth a thread of their own. */
const BAND = 4;

/** Measures what gives repairs away: only those whose pixels, or what is in sight of them, changed since. */
export class ProofDesk {
  /** Share done of what is being measured, by picture. */
  private readonly running = new Map<string, number>();

  constructor(
    private readonly proofs: ProofStore,
    private readonly records: RecordStore,
    private readonly renderer: Renderer,
    private readonly pool: WorkPool,
  ) {}

  /** The proof kept last, if there was one, and how far one has come that is under way. */
  kept(pictureId: string): KeptProofAnswer {
    this.records.picture(pictureId);
    const kept = this.proofs.find(pictureId);
    return { proof: kept && answerOf(kept), share: this.running.get(pictureId) ?? null };
  }

  /** @throws Cancelled */
  async prove(pictureId: string, signal: AbortSignal): Promise<ProofAnswer> {
    this.running.set(pictureId, 0);
    try {
      return await this.measure(pictureId, signal);
    } finally {
      this.running.delete(pictureId);
    }
  }

  private async measure(pictureId: string, signal: AbortSignal): Promise<ProofAnswer> {
    const { picture, patches, owners, view } = await this.renderer.newest(pictureId);
    const { original } = this.records.picture(pictureId);
    const names = proofNames(patches, original, frameOf(picture.raster));
    const before = this.proofs.find(pictureId)?.tells ?? {};
    const due = names.flatMap((name, k) => (before[owners[k]!]?.name === name ? [] : [k]));
    const tells: Record<string, KeptTells> = {};
    names.forEach((name, k) => {
      const known = before[owners[k]!];
      if (known?.name === name) tells[owners[k]!] = known;
    });
    const bands = proofBands(
      patches,
      due,
      Math.min(availableParallelism(), Math.ceil(due.length / BAND)),
    );
    const shares = bands.map(() => 0);
    await Promise.all(
      bands.map(async (band, b) => {
        const found = await this.pool.search<'proof'>(
          { kind: 'proof', original: picture.raster, patches, due: band },
          {
            signal,
            progress: (share) => {
              shares[b] = share;
              this.running.set(pictureId, shares.reduce((sum, s) => sum + s, 0) / bands.length);
            },
          },
        );
        band.forEach((k, i) => (tells[owners[k]!] = { name: names[k]!, tells: found[i]! }));
      }),
    );
    const kept = { version: view.version, tells };
    this.proofs.keep(pictureId, kept);
    return answerOf(kept);
  }
}

function answerOf({ version, tells }: KeptProof): ProofAnswer {
  return {
    version,
    tells: Object.entries(tells).flatMap(([repair, own]) =>
      own.tells.map((tell) => ({ ...tell, repair })),
    ),
  };
}
