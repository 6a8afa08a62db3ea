import { LayoutGrid } from 'lucide-react';
import type { StageDefinition } from '../stage.ts';
import { BedDrawer } from './bed-drawer.tsx';
import { standing } from './standing.ts';

export const bedStage: StageDefinition = {
  text: 'Bed',
  icon: LayoutGrid,
  Drawer: BedDrawer,
  standing,
};
