import { Palette } from 'lucide-react';
import { t } from '../../../words/words.ts';
import { laterDrawer } from '../later-drawer.tsx';
import type { StageDefinition } from '../stage.ts';
import { standing } from './standing.ts';

export const coloursStage: StageDefinition = {
  text: t('Colours'),
  icon: Palette,
  Drawer: laterDrawer(async () => (await import('./colours-drawer.tsx')).ColoursDrawer),
  standing,
};
