import type { Finding } from '@lambent/core/checks';
import { CircleCheck } from 'lucide-react';
import { useState } from 'react';
import { Button } from '../../../ui/button.tsx';
import { Notice } from '../../../ui/notice.tsx';
import { showPlace, showSelection } from '../../bed/showing.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { findingsOf, isPlanned } from '../../state/plan.ts';
import { Drawer } from '../drawer.tsx';

const titles: Record<Finding['code'], string> = {
  'nothing-to-burn': 'Nothing burns yet',
  'off-bed': 'Off the bed',
  'beam-off-bed': 'The beam would leave the bed',
  'off-sheet': 'Off the sheet',
  'into-margin': 'Into the margin',
  'colour-without-meaning': 'A colour without meaning',
  'open-cut': 'Cut lines that do not close',
  'open-engrave': 'Nothing to fill',
  'line-drawn-twice': 'A line drawn twice',
  'no-sheet': 'No sheet',
  'no-recipe': 'No recipe',
  'beyond-machine': 'Beyond the machine',
  'worked-out': 'Worked out, never burnt',
  'forbidden-stock': 'Never laser this',
  'outline-waits': 'Still being worked out',
  'kerf-swallows': 'Narrower than the kerf',
  'thin-wall': 'Thinner than the kerf',
  'narrow-gap': 'No room for the beam',
  'sharp-corner': 'Corners that stay round',
  'shared-cut': 'An edge for two parts',
  'run-up-short': 'Little room to speed up',
  'layer-off': 'A layer is off',
  'hidden-parts': 'Hidden parts',
  'picture-not-burnt': 'Picture not burnt',
  'near-miss': 'Colours hardly to be told apart',
  'order-broken': 'Burnt after its piece is cut',
  'fills-cancel': 'Engravings that cancel out',
  'layer-in-no-run': 'Burns in no run',
  'border-gone': 'A border is gone',
  'no-landing': 'Nowhere to land',
};

/** What the checks found, before the machine does. */
export function CheckDrawer() {
  const findings = useBench(findingsOf);
  const current = useBench(isPlanned);
  const trouble = useBench((state) => state.planning.trouble);
  const count = findings?.length ?? 0;
  return (
    <Drawer title="Check" aside={current ? (count === 1 ? '1 finding' : `${count} findings`) : 'checking…'}>
      {trouble && (
        <Notice level="blocks" title="The plan could not be worked out">
          {trouble}
        </Notice>
      )}
      {findings?.length === 0 && (
        <div className="flex flex-col items-center gap-2 rounded-xl border border-line bg-raised px-4 py-8 text-center">
          <CircleCheck size={28} className="text-settled" aria-hidden />
          <p className="font-semibold">Nothing stands in the way</p>
          <p className="text-quiet">
            On the bed and the sheet, every colour with a meaning, every layer with settings the machine can do.
          </p>
        </div>
      )}
      <ul className="flex flex-col gap-2.5">
        {findings?.map((finding, i) => (
          <li key={`${finding.code} ${i}`}>
            <FindingCard finding={finding} />
          </li>
        ))}
      </ul>
    </Drawer>
  );
}

function FindingCard({ finding }: { finding: Finding }) {
  const actions = useBenchActions();
  const { itemIds, places = [] } = finding;
  const [shown, setShown] = useState(0);
  return (
    <div
      onPointerEnter={() => actions.pointOut(itemIds)}
      onPointerLeave={() => actions.pointOut([])}
      data-testid={`finding-${finding.code}`}
    >
      <Notice level={finding.level} title={titles[finding.code]}>
        <p>{finding.message}</p>
        {itemIds.length > 0 && (
          <Button
            look="quiet"
            className="-ml-3"
            onClick={() => {
              actions.select(itemIds);
              showSelection(actions);
            }}
          >
            {itemIds.length === 1 ? 'Show it' : `Show the ${itemIds.length}`}
          </Button>
        )}
        {places.length > 0 && (
          <Button
            look="quiet"
            onClick={() => {
              actions.select(itemIds);
              showPlace(actions, places[shown % places.length]);
              setShown(shown + 1);
            }}
          >
            {places.length === 1 ? 'Go to the place' : `Go to place ${(shown % places.length) + 1} of ${places.length}`}
          </Button>
        )}
      </Notice>
    </div>
  );
}
