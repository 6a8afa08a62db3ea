import { Palette } from 'lucide-react';
import { laterDrawer } from '../later-drawer.tsx';
import type { StageDefinition } from '../stage.ts';
import { standing } from './standing.ts';

export const coloursStage: StageDefinition = {
  text: 'Colours',
  icon: Palette,
  Drawer: laterDrawer(async () => (await import('./colours-drawer.tsx')).ColoursDrawer),
  standing,
};
