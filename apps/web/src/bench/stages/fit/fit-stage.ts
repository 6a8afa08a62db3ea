import { SquareDashed } from 'lucide-react';
import { t } from '../../../words/words.ts';
import { laterDrawer } from '../later-drawer.tsx';
import type { StageDefinition } from '../stage.ts';
import { standing } from './standing.ts';

export const fitStage: StageDefinition = {
  text: t('Fit'),
  icon: SquareDashed,
  Drawer: laterDrawer(async () => (await import('./fit-drawer.tsx')).FitDrawer),
  standing,
};
