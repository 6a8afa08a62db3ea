import type { Alignment, Spreading } from '@lambent/core/edits';
import {
  AlignCenterHorizontal,
  AlignCenterVertical,
  AlignEndHorizontal,
  AlignEndVertical,
  AlignStartHorizontal,
  AlignStartVertical,
  type LucideIcon,
} from 'lucide-react';
import { memo, useMemo } from 'react';
import { Button, IconButton } from '../../../ui/button.tsx';
import { Choice } from '../../../ui/choice.tsx';
import { LengthField } from '../../../ui/length-field.tsx';
import { Tick } from '../../../ui/tick.tsx';
import { t } from '../../../words/words.ts';
import { type AlignTo, align, alignTarget, isAroundAll, spread } from '../../commands.ts';
import { useBench, useBenchActions, useSelected } from '../../context.ts';
import { useKeptSettings } from '../../kept-settings.ts';
import { sheetName } from '../../sheet-choice.ts';
import { jobOf, unitOf } from '../../state/document.ts';
import { type Listing, listingOf } from '../../thing-names.ts';
import type { ToolOptions } from '../../tools/tool-options.ts';
import { Part } from '../drawer.tsx';

const alignments: readonly { value: Alignment; text: string; icon: LucideIcon }[] = [
  { value: 'left', text: t('Left edges'), icon: AlignStartVertical },
  { value: 'centre', text: t('Middles across'), icon: AlignCenterVertical },
  { value: 'right', text: t('Right edges'), icon: AlignEndVertical },
  { value: 'top', text: t('Top edges'), icon: AlignStartHorizontal },
  { value: 'middle', text: t('Middles up and down'), icon: AlignCenterHorizontal },
  { value: 'bottom', text: t('Bottom edges'), icon: AlignEndHorizontal },
];

const usualSpread = { gap: 5, spacing: 'gap' as Spreading };

/** Aligning to a piece that stays put, a sheet or the bed, and spreading evenly. */
export function AlignPart() {
  const { drawing, selection } = useSelected();
  return <Aligning listing={listingOf(drawing)} selection={selection} />;
}

/** Follows once the bed shows what was done. */
const Aligning = memo(function Aligning({ listing, selection }: { listing: Listing; selection: ReadonlySet<string> }) {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const stays = useBench((state) => state.stays);
  const sheets = useBench((state) => jobOf(state).sheets);
  const materials = useBench((state) => state.shop.materials);
  const things = useMemo(
    () => listing.things.filter(({ ids }) => ids.some((id) => selection.has(id))),
    [listing, selection],
  );
  const { alignTo: chosen, alignsEach } = useBench((state) => state.toolOptions);
  const [{ gap, spacing }, keep] = useKeptSettings('spread', usualSpread);
  const staying = things.find(({ ids }) => ids.includes(stays ?? '')) ?? null;
  // A piece that was made to stay is what the rest is aligned to.
  const isGone = chosen.startsWith('sheet:') && !sheets.some(({ id }) => chosen === `sheet:${id}`);
  const used: AlignTo = staying ? 'stays' : isGone ? 'selection' : chosen;
  return (
    <Part title={t('Align and spread')} folds>
      <Choice<AlignTo | `stays:${string}`>
        label={t('Aligned to')}
        value={staying ? `stays:${staying.key}` : used}
        options={[
          { value: 'selection', text: t('The selection') },
          ...(things.length > 1
            ? things
                .slice(0, 30)
                .map(({ key, name }) => ({ value: `stays:${key}` as const, text: name, aside: t('stays put') }))
            : []),
          ...sheets.map((sheet) => ({
            value: `sheet:${sheet.id}` as const,
            text: sheets.length === 1 ? t('The sheet') : sheetName(sheets, sheet, materials),
          })),
          { value: 'bed', text: t('The bed') },
        ]}
        choose={(value) => {
          const key = value.startsWith('stays:') ? value.slice(6) : null;
          const thing = things.find((known) => known.key === key);
          actions.holdStill(thing?.ids[0] ?? null);
          actions.pointOut(thing?.ids ?? []);
          if (!thing) actions.setToolOptions({ alignTo: value as ToolOptions['alignTo'] });
        }}
      />
      {things.length > 1 && isAroundAll(used) && (
        <Tick checked={alignsEach} set={(each) => actions.setToolOptions({ alignsEach: each })}>
          {t('Piece by piece')}
        </Tick>
      )}
      {things.length > 1 && (
        <p className="text-[12px] text-quiet">{t('Alt and a click on a piece of the selection makes it stay put.')}</p>
      )}
      <div
        className="-mx-1 flex"
        onPointerEnter={() => actions.pointOut([...alignTarget(actions.get(), used).staying])}
      >
        {alignments.map(({ value, text, icon: Icon }) => (
          <IconButton key={value} label={text} onClick={() => align(actions, value, used, alignsEach)}>
            <Icon size={17} aria-hidden />
          </IconButton>
        ))}
      </div>
      {things.length > 1 && (
        <>
          <Choice
            label={t('Spread by')}
            value={spacing}
            options={[
              { value: 'gap' as const, text: t('The gap between them') },
              { value: 'centres' as const, text: t('From centre to centre') },
            ]}
            choose={(next) => keep({ spacing: next })}
          />
          <div className="flex items-end gap-1.5">
            <LengthField
              label={spacing === 'gap' ? t('Gap') : t('Centres')}
              unit={unit}
              value={gap}
              commit={(next) => keep({ gap: next })}
            />
            <Button onClick={() => spread(actions, 'x', spacing, gap)}>{t('In a row')}</Button>
            <Button onClick={() => spread(actions, 'y', spacing, gap)}>{t('In a column')}</Button>
          </div>
        </>
      )}
      {things.length > 2 && (
        <div className="flex gap-1.5">
          <Button onClick={() => spread(actions, 'x', spacing, null)}>{t('Even across')}</Button>
          <Button onClick={() => spread(actions, 'y', spacing, null)}>{t('Even down')}</Button>
        </div>
      )}
    </Part>
  );
});
