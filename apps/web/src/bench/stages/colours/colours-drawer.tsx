import { counted } from '../../../ui/counted.ts';
import { t } from '../../../words/words.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { shortcuts } from '../../shortcuts.ts';
import { Drawer } from '../drawer.tsx';
import { FadingFills } from './fading-fills.tsx';
import { FillPart } from './fill-part.tsx';
import { KeyPart } from './key-part.tsx';
import { LayersPart, PinnedPart } from './layers-part.tsx';
import { NearMisses } from './near-misses.tsx';
import { PaintList } from './paint-list.tsx';

/** Every paint of the drawing, and what it means. */
export function ColoursDrawer() {
  const actions = useBenchActions();
  const count = useBench((state) => state.prepared.meaning.paints.length);
  const realColours = useBench((state) => state.look === 'paints');
  return (
    <Drawer
      title={t('Colours')}
      aside={counted(count, 'paint')}
      foot={
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={realColours}
            onChange={(event) => actions.chooseLook(event.target.checked ? 'paints' : 'operations')}
            className="size-4 accent-petrol"
          />
          {t('Show the real colours')} <span className="text-quiet">({shortcuts.look.keys})</span>
        </label>
      }
    >
      <KeyPart />
      <NearMisses />
      <FadingFills />
      <PaintList />
      <PinnedPart />
      <FillPart />
      <LayersPart />
    </Drawer>
  );
}
