import type { Landing } from '@lambent/core/document';
import { useMemo } from 'react';
import { Choice } from '../../../../ui/choice.tsx';
import { LengthField } from '../../../../ui/length-field.tsx';
import { t } from '../../../../words/words.ts';
import { useBench } from '../../../context.ts';
import { sheetName } from '../../../sheet-choice.ts';
import { sheetCorner } from '../../../sheet-corner.ts';
import { jobOf, machineOf, unitOf } from '../../../state/document.ts';

type OwnSheet = Extract<Landing, { kind: 'sheet' }>;

/** Which sheet is laid for the run alone, and where its corner nearest to the machine's zero lies then. */
export function OwnSheetFields({ landing, land }: { landing: OwnSheet; land: (next: Landing) => void }) {
  const machine = useBench(machineOf);
  const unit = useBench(unitOf);
  const sheets = useBench((state) => jobOf(state).sheets);
  const materials = useBench((state) => state.shop.materials);
  const own = sheets.find(({ id }) => id === landing.sheetId);
  const corner = useMemo(() => (own ? sheetCorner(machine, { ...own, ...landing }) : null), [machine, own, landing]);
  return (
    <div className="flex flex-col gap-1.5">
      <Choice
        label={t('Its sheet')}
        value={landing.sheetId}
        options={sheets.map((sheet) => ({ value: sheet.id, text: sheetName(sheets, sheet, materials) }))}
        choose={(sheetId) => land({ ...landing, sheetId })}
      />
      {corner && (
        <div className="grid grid-cols-2 gap-1.5">
          <LengthField
            label={t('X of its corner')}
            unit={unit}
            value={corner.place.x}
            commit={(x) => land({ ...landing, ...corner.movedTo({ x }) })}
          />
          <LengthField
            label={t('Y of its corner')}
            unit={unit}
            value={corner.place.y}
            commit={(y) => land({ ...landing, ...corner.movedTo({ y }) })}
          />
        </div>
      )}
      <p className="text-[12px] text-quiet">{t('What is drawn on that sheet burns in this run, and in no other.')}</p>
    </div>
  );
}
