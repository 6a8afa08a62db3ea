import { ListChecks } from 'lucide-react';
import { laterDrawer } from '../later-drawer.tsx';
import type { StageDefinition } from '../stage.ts';
import { standing } from './standing.ts';

export const checkStage: StageDefinition = {
  text: 'Check',
  icon: ListChecks,
  Drawer: laterDrawer(async () => (await import('./check-drawer.tsx')).CheckDrawer),
  standing,
};
