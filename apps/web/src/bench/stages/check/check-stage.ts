import { ListChecks } from 'lucide-react';
import { t } from '../../../words/words.ts';
import { laterDrawer } from '../later-drawer.tsx';
import type { StageDefinition } from '../stage.ts';
import { standing } from './standing.ts';

export const checkStage: StageDefinition = {
  text: t('Check'),
  icon: ListChecks,
  Drawer: laterDrawer(async () => (await import('./check-drawer.tsx')).CheckDrawer),
  standing,
};
