import { Flame } from 'lucide-react';
import { t } from '../../../words/words.ts';
import { laterDrawer } from '../later-drawer.tsx';
import type { StageDefinition } from '../stage.ts';
import { standing } from './standing.ts';

export const burnStage: StageDefinition = {
  text: t('Burn'),
  icon: Flame,
  Drawer: laterDrawer(async () => (await import('./burn-drawer.tsx')).BurnDrawer),
  standing,
};
