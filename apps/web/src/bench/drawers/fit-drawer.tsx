import { Drawer } from './drawer.tsx';
import { OffsetPart } from './offset-part.tsx';

/** Where a drawing becomes parts: what lies at a distance from what is drawn. */
export function FitDrawer() {
  return (
    <Drawer title="Fit">
      <OffsetPart />
    </Drawer>
  );
}
