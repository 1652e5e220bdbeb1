import { ExportRecipeSchema, HouseSchema, LimitsSchema } from '@tersum/document';
import { Router } from 'express';
import type { Services } from '../services.js';
import { bodyOf } from './problems.js';

/** What holds for all jobs: working hours and rates, own times, ways of delivering. */
export function houseRoutes({ settings, recipes, work }: Services): Router {
  const router = Router();
  router.get('/', (_req, res) => void res.json(settings.house()));
  router.put('/', (req, res) => void res.json(settings.setHouse(bodyOf(HouseSchema, req))));
  router.get('/limits', (_req, res) => void res.json(settings.limits()));
  router.put('/limits', (req, res) => void res.json(settings.setLimits(bodyOf(LimitsSchema, req))));
  router.get('/times', (_req, res) => void res.json(work.ownTimes()));

  router.get('/recipes', (_req, res) => void res.json({ recipes: recipes.list() }));
  router.post('/recipes', (req, res) => {
    res.status(201).json(recipes.keep(bodyOf(ExportRecipeSchema, req)));
  });
  router.delete('/recipes/:id', (req, res) => {
    recipes.drop(req.params.id);
    res.json({});
  });
  return router;
}
