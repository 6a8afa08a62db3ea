import { LayoutGrid } from 'lucide-react';
import { t } from '../../../words/words.ts';
import { laterDrawer } from '../later-drawer.tsx';
import type { StageDefinition } from '../stage.ts';
import { standing } from './standing.ts';

export const bedStage: StageDefinition = {
  text: t('Bed'),
  icon: LayoutGrid,
  Drawer: laterDrawer(async () => (await import('./bed-drawer.tsx')).BedDrawer),
  standing,
};
