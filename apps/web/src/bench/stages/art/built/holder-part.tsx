import { drawnPaint } from '@lambent/core/colours';
import { itemsAmong } from '@lambent/core/document';
import { addHolder, type HolderWish, usualHolder } from '@lambent/core/fit';
import { fitOf } from '@lambent/core/recipes';
import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../../../../ui/button.tsx';
import { Choice } from '../../../../ui/choice.tsx';
import { asLength } from '../../../../ui/figures.ts';
import { LengthField } from '../../../../ui/length-field.tsx';
import { Tick } from '../../../../ui/tick.tsx';
import { t } from '../../../../words/words.ts';
import { useBench, useBenchActions } from '../../../context.ts';
import { newId } from '../../../new-id.ts';
import { offeredMaterials } from '../../../sheet-choice.ts';
import { jobOf, unitOf } from '../../../state/document.ts';

/** A holder that is cut from card, and positions an object for the run after. */
export function HolderPart() {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const drawing = useBench((state) => jobOf(state).drawing);
  const selection = useBench((state) => state.selection);
  const material = useBench((state) => state.prepared.material);
  const materials = useBench((state) => state.shop.materials);
  const [wish, setWish] = useState<Omit<HolderWish, 'clearanceMm'> & { clearanceMm: number | null }>({
    ...usualHolder,
    clearanceMm: null,
  });
  const chosen = selection.size === 1 ? itemsAmong(drawing, selection).find(({ hidden }) => !hidden) : undefined;
  const set = (part: Partial<typeof wish>) => setWish({ ...wish, ...part });
  const clearanceMm = wish.clearanceMm ?? fitOf(material, 'loose').mm;
  if (!chosen || chosen.shape.kind === 'picture') {
    return (
      <p className="text-quiet">
        {t(
          'Select one outline, that of the object to be held: draw it, or bring it in. Its holder is cut from the card on the bed, and the object burnt in it in the next run.',
        )}
      </p>
    );
  }
  const make = () => {
    const { key, meaning } = actions.get().prepared;
    const means = {
      cut: drawnPaint(key, 'cut').paint,
      score: drawnPaint(key, 'score').paint,
      guideId: meaning.layers.find(({ operation }) => operation === 'guide')?.id ?? null,
      layers: meaning.layers,
      newId,
    };
    let ids: string[] = [];
    actions.edit(t('a holder'), (job) => {
      const added = addHolder(job, chosen.id, { ...wish, clearanceMm }, means);
      ids = added.ids;
      return added.job;
    });
    if (ids.length === 0) {
      toast.message(t('That outline encloses nothing to hold. Close it, or select another.'));
      return;
    }
    actions.select(ids);
    actions.chooseRun(jobOf(actions.get()).runs[0].id);
  };
  const length = (label: string, value: number, commit: (mm: number) => void, most: number) => (
    <LengthField
      label={label}
      unit={unit}
      value={value}
      takes="not-below-0"
      commit={(mm) => {
        if (mm > most) return t('At most {{most}} mm.', { most });
        commit(mm);
        return undefined;
      }}
    />
  );
  return (
    <>
      <div className="grid grid-cols-2 gap-1.5">
        {length(t('Clearance'), clearanceMm, (mm) => set({ clearanceMm: mm }), 5)}
        {length(t('Rim'), wish.rimMm, (rimMm) => set({ rimMm }), 500)}
        {length(t('Finger notches'), wish.notchMm, (notchMm) => set({ notchMm }), 100)}
      </div>
      <Tick checked={wish.corners} set={(corners) => set({ corners })}>
        {t('mark its corners on the card')}
      </Tick>
      <Choice
        label={t('Object of')}
        value={wish.materialId ?? 'sheet'}
        options={[
          { value: 'sheet', text: t('What lies there') },
          ...offeredMaterials(materials, wish.materialId).map(({ id, name, thicknessMm }) => ({
            value: id,
            text: name,
            aside: asLength(thicknessMm, unit),
          })),
        ]}
        choose={(value) => set({ materialId: value === 'sheet' ? null : value })}
      />
      <Button look="main" className="self-start" onClick={make}>
        {t('Make the holder')}
      </Button>
      <p className="text-[12px] text-quiet">
        {t('The first run cuts it; the next burns what is on the object, with the card left in place.')}
      </p>
    </>
  );
}
