import { lazy, Suspense } from 'react';
import { t } from '../../../words/words.ts';
import { Drawer } from '../drawer.tsx';
import { BorderPart } from './border-part.tsx';
import { FitsPart } from './fits-part.tsx';
import { KerfPart } from './kerf-part.tsx';
import { Makings } from './makings.tsx';
import { OffsetPart } from './offset-part.tsx';
import { TestPiecesPart } from './test-pieces-part.tsx';

const CodePart = lazy(() => import('./code-part.tsx'));
const ListPart = lazy(() => import('./list/list-part.tsx'));
const PackPart = lazy(() => import('./pack-part.tsx'));
const ScanCardPart = lazy(() => import('./scan-card-part.tsx'));
const SquarePart = lazy(() => import('./square-part.tsx'));

/** Where a drawing becomes parts: what lies at a distance from what is drawn, what goes around it, how parts meet. */
export function FitDrawer() {
  return (
    <Drawer title={t('Fit')}>
      <Makings
        makings={[
          { name: t('Offset'), about: t('Outlines at a distance'), part: <OffsetPart /> },
          { name: t('Border'), about: t('One outline around everything'), part: <BorderPart /> },
          { name: t('Clearance'), about: t('How parts meet'), part: <FitsPart /> },
          { name: t('Kerf'), about: t('What the beam takes away'), part: <KerfPart /> },
          {
            name: t('Pack'),
            about: t('Little waste on the sheet'),
            part: (
              <Suspense>
                <PackPart />
              </Suspense>
            ),
          },
          {
            name: t('List'),
            about: t('One design, many names'),
            part: (
              <Suspense>
                <ListPart />
              </Suspense>
            ),
          },
          {
            name: t('Code'),
            about: t('Read by a camera or scanner'),
            part: (
              <Suspense>
                <CodePart />
              </Suspense>
            ),
          },
          { name: t('Test pieces'), about: t('Measure kerf and fits'), part: <TestPiecesPart /> },
          {
            name: t('Scan offset'),
            about: t('How far lines burn apart'),
            part: (
              <Suspense>
                <ScanCardPart />
              </Suspense>
            ),
          },
          {
            name: t('Axes'),
            about: t('True to scale, and square'),
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
