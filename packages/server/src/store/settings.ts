import type { House } from '@tersum/document';
import { FIRST_HOUSE, HouseSchema } from '@tersum/document';
import { eq } from 'drizzle-orm';
import type { Db } from '../db/open.js';
import { settings } from '../db/schema.js';

const HOUSE = 'house';

/** What the house has set for itself. */
export class SettingStore {
  constructor(private readonly db: Db) {}

  house(): House {
    const row = this.db.select().from(settings).where(eq(settings.name, HOUSE)).get();
    return HouseSchema.parse({ ...FIRST_HOUSE, ...(row?.value as Partial<House> | undefined) });
  }

  setHouse(value: House): House {
    this.db
      .insert(settings)
      .values({ name: HOUSE, value })
      .onConflictDoUpdate({ target: settings.name, set: { value } })
      .run();
    return this.house();
  }
}
