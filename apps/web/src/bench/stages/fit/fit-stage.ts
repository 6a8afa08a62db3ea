import { SquareDashed } from 'lucide-react';
import type { StageDefinition } from '../stage.ts';
import { FitDrawer } from './fit-drawer.tsx';
import { standing } from './standing.ts';

export const fitStage: StageDefinition = {
  text: 'Fit',
  icon: SquareDashed,
  Drawer: FitDrawer,
  standing,
};
