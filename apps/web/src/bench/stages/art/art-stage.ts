import { Spline } from 'lucide-react';
import { t } from '../../../words/words.ts';
import type { StageDefinition } from '../stage.ts';
import { ArtDrawer } from './art-drawer.tsx';
import { standing } from './standing.ts';

export const artStage: StageDefinition = {
  text: t('Art'),
  icon: Spline,
  Drawer: ArtDrawer,
  standing,
};
