import type { SweptFrame } from '@tersum/document';
import { asc, eq } from 'drizzle-orm';
import type { Db } from '../db/open.js';
import type { KeptTells } from '../db/schema.js';
import { proofs, sweptFrames } from '../db/schema.js';

/** A picture's proof as it was measured last. */
export interface KeptProof {
  readonly version: number;
  /** By repair. */
  readonly tells: Readonly<Record<string, KeptTells>>;
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
