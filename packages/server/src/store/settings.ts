import type { TellLimits } from '@tersum/core';
import { TELL_LIMITS } from '@tersum/core';
import type { House } from '@tersum/document';
import { FIRST_HOUSE, HouseSchema, LimitsSchema } from '@tersum/document';
import { eq } from 'drizzle-orm';
import type { Db } from '../db/open.js';
import { settings } from '../db/schema.js';

const HOUSE = 'house';
const LIMITS = 'limits';

/** What the house has set for itself. */
export class SettingStore {
  constructor(private readonly db: Db) {}

  house(): House {
    return HouseSchema.parse({
      ...FIRST_HOUSE,
      ...(this.find(HOUSE) as Partial<House> | undefined),
    });
  }

  setHouse(value: House): House {
    this.keep(HOUSE, value);
    return this.house();
  }

  /** From which values on repairs tell. */
  limits(): TellLimits {
    return LimitsSchema.parse({
      ...TELL_LIMITS,
      ...(this.find(LIMITS) as Partial<TellLimits> | undefined),
    });
  }

  setLimits(value: TellLimits): TellLimits {
    this.keep(LIMITS, value);
    return this.limits();
  }

  private find(name: string): unknown {
    return this.db.select().from(settings).where(eq(settings.name, name)).get()?.value;
  }

  private keep(name: string, value: unknown): void {
    this.db
      .insert(settings)
      .values({ name, value })
      .onConflictDoUpdate({ target: settings.name, set: { value } })
      .run();
  }
}
