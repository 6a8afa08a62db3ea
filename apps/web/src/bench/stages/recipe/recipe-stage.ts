import { BookOpen } from 'lucide-react';
import { t } from '../../../words/words.ts';
import { laterDrawer } from '../later-drawer.tsx';
import type { StageDefinition } from '../stage.ts';
import { standing } from './standing.ts';

export const recipeStage: StageDefinition = {
  text: t('Recipe'),
  icon: BookOpen,
  Drawer: laterDrawer(async () => (await import('./recipe-drawer.tsx')).RecipeDrawer),
  standing,
};
