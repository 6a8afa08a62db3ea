import { LayoutGrid } from 'lucide-react';
import { laterDrawer } from '../later-drawer.tsx';
import type { StageDefinition } from '../stage.ts';
import { standing } from './standing.ts';

export const bedStage: StageDefinition = {
  text: 'Bed',
  icon: LayoutGrid,
  Drawer: laterDrawer(async () => (await import('./bed-drawer.tsx')).BedDrawer),
  standing,
};
