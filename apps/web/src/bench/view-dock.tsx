import { Keyboard, LayoutGrid, SquareDashedMousePointer, ZoomIn, ZoomOut } from 'lucide-react';
import { IconButton } from '../ui/button.tsx';
import { Choice } from '../ui/choice.tsx';
import { Toolbar } from '../ui/toolbar.tsx';
import { t } from '../words/words.ts';
import type { Look } from './bed/look.ts';
import { showBed, showSelection } from './bed/showing.ts';
import { zoomAt } from './bed/view.ts';
import { useBench, useBenchActions } from './context.ts';
import { withKeys } from './shortcuts.ts';

const lookWords: readonly { value: Look; text: string }[] = [
  { value: 'operations', text: t('Operations') },
  { value: 'paints', text: t('Real colours') },
  { value: 'outlines', text: t('Outlines') },
  { value: 'burnt', text: t('As burnt') },
];

/** How the bed is looked at; floats at its foot. */
export function ViewDock({ showKeys }: { showKeys: () => void }) {
  const actions = useBenchActions();
  const selected = useBench((state) => state.selection.size > 0);
  const look = useBench((state) => state.look);
  const zoom = (factor: number) => {
    const { view, viewSize } = actions.get();
    actions.showView(zoomAt(view, viewSize.width / 2, viewSize.height / 2, factor));
  };
  return (
    <Toolbar label={t('View')}>
      <IconButton label={withKeys(t('Show the whole bed'), 'showBed')} onClick={() => showBed(actions)}>
        <LayoutGrid size={17} aria-hidden />
      </IconButton>
      <IconButton
        label={withKeys(t('Show the selection'), 'showSelection')}
        disabled={!selected}
        onClick={() => showSelection(actions)}
      >
        <SquareDashedMousePointer size={17} aria-hidden />
      </IconButton>
      <IconButton label={t('Nearer (+)')} onClick={() => zoom(1.25)}>
        <ZoomIn size={17} aria-hidden />
      </IconButton>
      <IconButton label={t('Farther (−)')} onClick={() => zoom(0.8)}>
        <ZoomOut size={17} aria-hidden />
      </IconButton>
      <span className="mx-1 h-5 w-px bg-line" aria-hidden />
      <Choice
        label={withKeys(t('Drawn as'), 'look')}
        look="chip"
        value={look}
        options={lookWords}
        choose={actions.chooseLook}
      />
      <IconButton label={withKeys(t('Keyboard'), 'sheet')} onClick={showKeys}>
        <Keyboard size={17} aria-hidden />
      </IconButton>
    </Toolbar>
  );
}
