import { Flame } from 'lucide-react';
import { laterDrawer } from '../later-drawer.tsx';
import type { StageDefinition } from '../stage.ts';
import { standing } from './standing.ts';

export const burnStage: StageDefinition = {
  text: 'Burn',
  icon: Flame,
  Drawer: laterDrawer(async () => (await import('./burn-drawer.tsx')).BurnDrawer),
  standing,
};
