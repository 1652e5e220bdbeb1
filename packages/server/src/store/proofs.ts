import type { Stand, SweptFrame } from '@tersum/document';
import { and, asc, eq } from 'drizzle-orm';
import type { Db } from '../db/open.js';
import type { KeptTells } from '../db/schema.js';
import { proofs, standingTells, sweptFrames } from '../db/schema.js';

/** A picture's proof as it was measured last. */
export interface KeptProof {
  readonly version: number;
  /** By repair. */
  readonly tells: Readonly<Record<string, KeptTells>>;
}

/** What tells one tell of a picture from the others. */
export type TellPlace = Pick<Stand, 'kind' | 'repair' | 'box'>;

export function keyOfTell({ kind, repair, box }: TellPlace): string {
  return [repair ?? 'picture', kind, box.x, box.y, box.width, box.height].join(' ');
}

/** What proof measured, and which frames somebody looked at. */
export class ProofStore {
  constructor(private readonly db: Db) {}

  find(pictureId: string): KeptProof | null {
    const row = this.db.select().from(proofs).where(eq(proofs.pictureId, pictureId)).get();
    return row ? { version: row.version, tells: row.data } : null;
  }

  keep(pictureId: string, { version, tells }: KeptProof): void {
    const row = { version, data: { ...tells } };
    this.db
      .insert(proofs)
      .values({ pictureId, ...row })
      .onConflictDoUpdate({ target: proofs.pictureId, set: row })
      .run();
  }

  /** What was let stand, and how telling it was then. */
  standing(pictureId: string): ReadonlyMap<string, number> {
    const rows = this.db
      .select()
      .from(standingTells)
      .where(eq(standingTells.pictureId, pictureId))
      .all();
    return new Map(rows.map(({ key, value }) => [key, value]));
  }

  /** Lets a tell of some value stand; null has it told again. */
  letStand(pictureId: string, tell: TellPlace, value: number | null): void {
    const key = keyOfTell(tell);
    if (value === null) {
      this.db
        .delete(standingTells)
        .where(and(eq(standingTells.pictureId, pictureId), eq(standingTells.key, key)))
        .run();
      return;
    }
    const row = { value, at: new Date().toISOString() };
    this.db
      .insert(standingTells)
      .values({ pictureId, key, ...row })
      .onConflictDoUpdate({ target: [standingTells.pictureId, standingTells.key], set: row })
      .run();
  }

  swept(pictureId: string): SweptFrame[] {
    return this.db
      .select({ frame: sweptFrames.frame, content: sweptFrames.content, state: sweptFrames.state })
      .from(sweptFrames)
      .where(eq(sweptFrames.pictureId, pictureId))
      .orderBy(asc(sweptFrames.frame))
      .all();
  }

  sweep(pictureId: string, { frame, content, state }: SweptFrame): void {
    const row = { content, state, at: new Date().toISOString() };
    this.db
      .insert(sweptFrames)
      .values({ pictureId, frame, ...row })
      .onConflictDoUpdate({ target: [sweptFrames.pictureId, sweptFrames.frame], set: row })
      .run();
  }
}
