import { lazy, Suspense } from 'react';
import { Drawer } from '../drawer.tsx';
import { BorderPart } from './border-part.tsx';
import { FitsPart } from './fits-part.tsx';
import { KerfPart } from './kerf-part.tsx';
import { Makings } from './makings.tsx';
import { OffsetPart } from './offset-part.tsx';
import { TestPiecesPart } from './test-pieces-part.tsx';

const ScanCardPart = lazy(() => import('./scan-card-part.tsx'));
const SquarePart = lazy(() => import('./square-part.tsx'));

/** Where a drawing becomes parts: what lies at a distance from what is drawn, what goes around it, how parts meet. */
export function FitDrawer() {
  return (
    <Drawer title="Fit">
      <Makings
        makings={[
          { name: 'Offset', about: 'Outlines at a distance', part: <OffsetPart /> },
          { name: 'Border', about: 'One outline around everything', part: <BorderPart /> },
          { name: 'Clearance', about: 'How parts meet', part: <FitsPart /> },
          { name: 'Kerf', about: 'What the beam takes away', part: <KerfPart /> },
          { name: 'Test pieces', about: 'Measure kerf and fits', part: <TestPiecesPart /> },
          {
            name: 'Scan offset',
            about: 'How far lines burn apart',
            part: (
              <Suspense>
                <ScanCardPart />
              </Suspense>
            ),
          },
          {
            name: 'Axes',
            about: 'True to scale, and square',
            part: (
              <Suspense>
                <SquarePart />
              </Suspense>
            ),
          },
        ]}
      />
    </Drawer>
  );
}
