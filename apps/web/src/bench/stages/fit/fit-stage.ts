import { SquareDashed } from 'lucide-react';
import { laterDrawer } from '../later-drawer.tsx';
import type { StageDefinition } from '../stage.ts';
import { standing } from './standing.ts';

export const fitStage: StageDefinition = {
  text: 'Fit',
  icon: SquareDashed,
  Drawer: laterDrawer(async () => (await import('./fit-drawer.tsx')).FitDrawer),
  standing,
};
