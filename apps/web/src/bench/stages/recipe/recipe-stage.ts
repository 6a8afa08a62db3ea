import { BookOpen } from 'lucide-react';
import { laterDrawer } from '../later-drawer.tsx';
import type { StageDefinition } from '../stage.ts';
import { standing } from './standing.ts';

export const recipeStage: StageDefinition = {
  text: 'Recipe',
  icon: BookOpen,
  Drawer: laterDrawer(async () => (await import('./recipe-drawer.tsx')).RecipeDrawer),
  standing,
};
