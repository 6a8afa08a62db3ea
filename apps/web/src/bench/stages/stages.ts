import { artStage } from './art/art-stage.ts';
import { bedStage } from './bed/bed-stage.ts';
import { burnStage } from './burn/burn-stage.ts';
import { checkStage } from './check/check-stage.ts';
import { coloursStage } from './colours/colours-stage.ts';
import { fitStage } from './fit/fit-stage.ts';
import { recipeStage } from './recipe/recipe-stage.ts';
import type { Stage, StageDefinition } from './stage.ts';

export const stages: Readonly<Record<Stage, StageDefinition>> = {
  bed: bedStage,
  art: artStage,
  colours: coloursStage,
  fit: fitStage,
  recipe: recipeStage,
  check: checkStage,
  burn: burnStage,
};
