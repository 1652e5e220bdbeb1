import { randomUUID } from 'node:crypto';
import type { ExportRecipe, KeptRecipe } from '@tersum/document';
import { asc, eq } from 'drizzle-orm';
import type { Db } from '../db/open.js';
import { recipes } from '../db/schema.js';

/** Ways of delivering, kept by name for all jobs. */
export class RecipeStore {
  constructor(private readonly db: Db) {}

  list(): KeptRecipe[] {
    return this.db
      .select()
      .from(recipes)
      .orderBy(asc(recipes.keptAt))
      .all()
      .map(({ id, data }) => ({ id, ...data }));
  }

  /** Keeps a recipe; one of the same name is replaced. */
  keep(data: ExportRecipe): KeptRecipe {
    const same = this.list().find(({ name }) => name === data.name);
    const id = same?.id ?? randomUUID();
    this.db
      .insert(recipes)
      .values({ id, data, keptAt: new Date().toISOString() })
      .onConflictDoUpdate({ target: recipes.id, set: { data } })
      .run();
    return { id, ...data };
  }

  drop(id: string): void {
    this.db.delete(recipes).where(eq(recipes.id, id)).run();
  }
}
