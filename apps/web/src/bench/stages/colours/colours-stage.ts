import { Palette } from 'lucide-react';
import type { StageDefinition } from '../stage.ts';
import { ColoursDrawer } from './colours-drawer.tsx';
import { standing } from './standing.ts';

export const coloursStage: StageDefinition = {
  text: 'Colours',
  icon: Palette,
  Drawer: ColoursDrawer,
  standing,
};
