import type { Sheet } from '@lambent/core/document';
import { setSheet } from '@lambent/core/edits';
import { thicknessOf } from '@lambent/core/recipes';
import { LengthField } from '../../../ui/length-field.tsx';
import { t } from '../../../words/words.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { sheetName } from '../../sheet-choice.ts';
import { jobOf, unitOf } from '../../state/document.ts';

/** The measured thickness of a sheet, to be typed. */
export function SheetThickness({ sheet, alone }: { sheet: Sheet; alone: boolean }) {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const sheets = useBench((state) => jobOf(state).sheets);
  const materials = useBench((state) => state.shop.materials);
  const material = materials.find(({ id }) => id === sheet.materialId);
  const nominal = material ? thicknessOf(material) : 0;
  return (
    <LengthField
      label={
        alone ? t('Measured thickness') : t('Thickness of {{sheets}}', { sheets: sheetName(sheets, sheet, materials) })
      }
      unit={unit}
      value={sheet.thicknessMm ?? nominal}
      takes="more-than-0"
      commit={(mm) => {
        if (mm > 100) return t('No sheet is that thick.');
        const { thicknessMm: _, ...plain } = sheet;
        const changed = Math.abs(mm - nominal) < 1e-9 ? plain : { ...plain, thicknessMm: mm };
        actions.edit(t('thickness of the sheet'), (job) => setSheet(job, changed));
        return undefined;
      }}
    />
  );
}
