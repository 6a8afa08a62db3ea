import { ListChecks } from 'lucide-react';
import type { StageDefinition } from '../stage.ts';
import { CheckDrawer } from './check-drawer.tsx';
import { standing } from './standing.ts';

export const checkStage: StageDefinition = {
  text: 'Check',
  icon: ListChecks,
  Drawer: CheckDrawer,
  standing,
};
