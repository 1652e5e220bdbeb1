import type { Delivery } from '@tersum/document';
import { asc, eq } from 'drizzle-orm';
import type { Db } from '../db/open.js';
import { deliveries } from '../db/schema.js';

/** Which files were made of a picture. */
export class DeliveryStore {
  constructor(private readonly db: Db) {}

  note(pictureId: string, delivery: Delivery): void {
    this.db
      .insert(deliveries)
      .values({ pictureId, ...delivery })
      .run();
  }

  /** The newest last. */
  list(pictureId: string): Delivery[] {
    return this.db
      .select({
        fileName: deliveries.fileName,
        sha256: deliveries.sha256,
        bytes: deliveries.bytes,
        at: deliveries.at,
      })
      .from(deliveries)
      .where(eq(deliveries.pictureId, pictureId))
      .orderBy(asc(deliveries.id))
      .all();
  }
}
