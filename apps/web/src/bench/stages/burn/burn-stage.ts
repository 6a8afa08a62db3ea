import { Flame } from 'lucide-react';
import type { StageDefinition } from '../stage.ts';
import { BurnDrawer } from './burn-drawer.tsx';
import { standing } from './standing.ts';

export const burnStage: StageDefinition = {
  text: 'Burn',
  icon: Flame,
  Drawer: BurnDrawer,
  standing,
};
