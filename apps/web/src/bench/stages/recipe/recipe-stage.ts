import { BookOpen } from 'lucide-react';
import type { StageDefinition } from '../stage.ts';
import { RecipeDrawer } from './recipe-drawer.tsx';
import { standing } from './standing.ts';

export const recipeStage: StageDefinition = {
  text: 'Recipe',
  icon: BookOpen,
  Drawer: RecipeDrawer,
  standing,
};
