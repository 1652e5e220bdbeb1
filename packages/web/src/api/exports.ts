import type { ExportRecipe, ExportRequest } from '@tersum/document';
import { ExportStatusSchema, KeptRecipeSchema, RecipeListSchema } from '@tersum/document';
import useSWR, { mutate } from 'swr';
import { z } from 'zod';
import { request } from './client.js';

const RECIPES = '/api/house/recipes';

export const postExport = (id: string, order: ExportRequest) =>
  request(ExportStatusSchema, `/api/pictures/${id}/exports`, { body: order });

export const getExport = (id: string) => request(ExportStatusSchema, `/api/exports/${id}`);

export const stopExport = (id: string) =>
  request(z.unknown(), `/api/exports/${id}`, { method: 'DELETE' });

/** Ways of delivering that were kept. */
export function useRecipes() {
  return useSWR(RECIPES, (path) => request(RecipeListSchema, path));
}

export async function keepRecipe(recipe: ExportRecipe) {
  const kept = await request(KeptRecipeSchema, RECIPES, { body: recipe });
  await mutate(RECIPES);
  return kept;
}

export async function dropRecipe(id: string): Promise<void> {
  await request(z.unknown(), `${RECIPES}/${id}`, { method: 'DELETE' });
  await mutate(RECIPES);
}
