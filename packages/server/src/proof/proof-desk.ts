import { availableParallelism } from 'node:os';
import { UserProblem } from '@tersum/codec';
import type { Raster, Rect } from '@tersum/core';
import { frameOf, isBeyond, isWithin } from '@tersum/core';
import type {
  KeptProofAnswer,
  MeasuredTell,
  ProofAnswer,
  RepairTell,
  Stand,
} from '@tersum/document';
import { proofBands, proofNameOfWhole, proofNames } from '@tersum/document';
import type { Patch } from '@tersum/document';
import type { KeptTells } from '../db/schema.js';
import type { WorkPool } from '../pool/pool.js';
import type { Renderer } from '../render/renderer.js';
import type { FindingStore } from '../store/findings.js';
import type { KeptProof, ProofStore } from '../store/proofs.js';
import { keyOfTell } from '../store/proofs.js';
import type { RecordStore } from '../store/records.js';
import type { SettingStore } from '../store/settings.js';

/** So many repairs are worth a thread of their own. */
const BAND = 4;
/** Under this name the tells of the whole picture are kept among those of the repairs. */
const WHOLE = 'picture';
/** A tell that was let stand is told again when it has grown by more than this factor. */
const GROWN = 1.1;

/** Measures what gives repairs away: only those whose pixels, or what is in sight of them, changed since. */
export class ProofDesk {
  /** Share done of what is being measured, by picture. */
  private readonly running = new Map<string, number>();

  constructor(
    private readonly proofs: ProofStore,
    private readonly settings: SettingStore,
    private readonly findings: FindingStore,
    private readonly records: RecordStore,
    private readonly renderer: Renderer,
    private readonly pool: WorkPool,
  ) {}

  /** The proof kept last, if there was one, and how far one has come that is under way. */
  kept(pictureId: string): KeptProofAnswer {
    this.records.picture(pictureId);
    const kept = this.proofs.find(pictureId);
    return {
      proof: kept && this.answerOf(pictureId, kept),
      share: this.running.get(pictureId) ?? null,
    };
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

  /** Lets a tell of the kept proof stand, or has it told again. */
  stand(pictureId: string, { stands, ...tell }: Stand): KeptProofAnswer {
    this.records.picture(pictureId);
    const key = keyOfTell(tell);
    const measured = this.proofs
      .find(pictureId)
      ?.tells[tell.repair ?? WHOLE]?.tells.find(
        (t) => keyOfTell({ ...t, repair: tell.repair }) === key,
      );
    if (!measured)
      throw new UserProblem(404, 'This tell is not there any more. Prove the repairs again.');
    this.proofs.letStand(pictureId, tell, stands ? measured.value : null);
    return this.kept(pictureId);
  }

  private async measure(pictureId: string, signal: AbortSignal): Promise<ProofAnswer> {
    const { picture, patches, owners, view, name: base } = await this.renderer.newest(pictureId);
    const names = proofNames(patches, base, frameOf(picture.raster));
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
    const whole = this.whole(
      proofNameOfWhole(patches, base),
      before[WHOLE],
      picture.raster,
      patches,
    );
    await Promise.all([
      whole.then((own) => void (tells[WHOLE] = own)),
      ...bands.map(async (band, b) => {
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
        band.forEach((k, i) => {
          const own = found[i]!.map(({ limit: _, ...measured }) => measured);
          tells[owners[k]!] = { name: names[k]!, tells: own };
        });
      }),
    ]);
    const kept = { version: view.version, tells };
    this.proofs.keep(pictureId, kept);
    return this.answerOf(pictureId, kept);
  }

  /** What draws the eye in the far view of the picture as it stands. */
  private async whole(
    name: string,
    before: KeptTells | undefined,
    original: Raster,
    patches: readonly Patch[],
  ): Promise<KeptTells> {
    if (before?.name === name) return before;
    const pulls = await this.pool.run<'pulls'>({ kind: 'pulls', original, patches });
    return {
      name,
      tells: pulls.map(({ value, box, outlines }) => ({
        kind: 'pull',
        value,
        box,
        outlines: outlines.map((o) => o.map(([x, y]): [number, number] => [x, y])),
      })),
    };
  }

  /** What of it is beyond the limits of the house. */
  private answerOf(pictureId: string, { version, tells }: KeptProof): ProofAnswer {
    const limits = this.settings.limits();
    const standing = this.proofs.standing(pictureId);
    const { policy, subject } = this.findings.survey(pictureId).settings;
    const kept = this.findings
      .list(pictureId)
      .filter(({ kind, dismissed }) => kind === 'pulls' && dismissed);
    const isKept = ({ kind, box }: MeasuredTell): boolean =>
      kind === 'pull' &&
      (policy === 'documentary' ||
        (subject !== null && isWithin(subject, middleOf(box))) ||
        kept.some((f) => holds(f.box, box)));
    const told = Object.entries(tells).flatMap(([owner, own]) =>
      own.tells
        .filter((tell) => isBeyond(tell.kind, tell.value, limits[tell.kind]) && !isKept(tell))
        .map((tell): RepairTell => {
          const repair = owner === WHOLE ? null : owner;
          const before = standing.get(keyOfTell({ ...tell, repair }));
          const stands = before !== undefined && !hasGrown(tell, before);
          return { ...tell, repair, limit: limits[tell.kind], stands };
        }),
    );
    return { version, tells: told };
  }
}

/** Whether a tell is further from where nothing is told than it was. */
function hasGrown({ kind, value }: MeasuredTell, before: number): boolean {
  const falls = kind === 'softness' || (kind === 'grain' && before < 1);
  return falls ? value < before / GROWN : value > before * GROWN;
}

function middleOf({ x, y, width, height }: Rect): readonly [number, number] {
  return [x + width / 2, y + height / 2];
}

/** Whether the middle of a box lies in another. */
function holds(outer: Rect, inner: Rect): boolean {
  const [cx, cy] = middleOf(inner);
  return (
    cx >= outer.x && cy >= outer.y && cx <= outer.x + outer.width && cy <= outer.y + outer.height
  );
}
