import { FillPart } from '../colours/fill-part.tsx';
import { KeyPart } from '../colours/key-part.tsx';
import { LayersPart, PinnedPart } from '../colours/layers-part.tsx';
import { NearMisses } from '../colours/near-misses.tsx';
import { PaintList } from '../colours/paint-list.tsx';
import { useBench, useBenchActions } from '../context.ts';
import { Drawer } from './drawer.tsx';

/** Every paint of the drawing, and what it means. */
export function ColoursDrawer() {
  const actions = useBenchActions();
  const count = useBench((state) => state.prepared.meaning.paints.length);
  const realColours = useBench((state) => state.look === 'paints');
  return (
    <Drawer
      title="Colours"
      aside={`${count} ${count === 1 ? 'paint' : 'paints'}`}
      foot={
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={realColours}
            onChange={(event) => actions.set({ look: event.target.checked ? 'paints' : 'operations' })}
            className="size-4 accent-petrol"
          />
          Show the real colours <span className="text-quiet">(C)</span>
        </label>
      }
    >
      <KeyPart />
      <NearMisses />
      <PaintList />
      <PinnedPart />
      <FillPart />
      <LayersPart />
    </Drawer>
  );
}
