import { z } from 'zod';
import { ExportSchema } from './messages.js';

/** A way of delivering that is kept by name. */
export const ExportRecipeSchema = z.object({
  name: z
    .string()
    .trim()
    .min(1, 'Give the recipe a name.')
    .max(60, 'Keep the name under 60 characters.'),
  order: ExportSchema,
});
export type ExportRecipe = z.infer<typeof ExportRecipeSchema>;

export const KeptRecipeSchema = ExportRecipeSchema.extend({ id: z.uuid() });
export type KeptRecipe = z.infer<typeof KeptRecipeSchema>;
export const RecipeListSchema = z.object({ recipes: z.array(KeptRecipeSchema) });
