import { Spline } from 'lucide-react';
import type { StageDefinition } from '../stage.ts';
import { ArtDrawer } from './art-drawer.tsx';
import { standing } from './standing.ts';

export const artStage: StageDefinition = {
  text: 'Art',
  icon: Spline,
  Drawer: ArtDrawer,
  standing,
};
