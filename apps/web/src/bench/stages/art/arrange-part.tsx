import type { Combining } from '@lambent/core/geometry';
import {
  ArrowDownToLine,
  ArrowUpToLine,
  Copy,
  FlipHorizontal2,
  FlipVertical2,
  Group as GroupIcon,
  Lock,
  type LucideIcon,
  SquaresExclude,
  SquaresIntersect,
  SquaresSubtract,
  SquaresUnite,
  Ungroup,
} from 'lucide-react';
import { IconButton } from '../../../ui/button.tsx';
import { t } from '../../../words/words.ts';
import { combine, duplicate, group, lock, mirror, order, ungroup } from '../../commands.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { withKeys } from '../../shortcuts.ts';
import { Part } from '../drawer.tsx';
import { AlignPart } from './align-part.tsx';
import { BurntAs } from './burnt-as.tsx';
import { MendPart } from './mend-part.tsx';
import { PaintPart } from './paint-part.tsx';
import { PlacePart } from './place-part.tsx';
import { RepeatPart } from './repeat-part.tsx';
import { TextAlong } from './text-along.tsx';

const combinings: readonly { value: Combining; text: string; icon: LucideIcon }[] = [
  { value: 'unite', text: t('Unite'), icon: SquaresUnite },
  { value: 'subtract', text: t('Subtract those in front'), icon: SquaresSubtract },
  { value: 'intersect', text: t('Intersect'), icon: SquaresIntersect },
  { value: 'exclude', text: t('Exclude what overlaps'), icon: SquaresExclude },
];

/** What can be done with the selection. */
export function ArrangePart() {
  const actions = useBenchActions();
  const count = useBench((state) => state.selection.size);
  if (count === 0) return null;
  return (
    <>
      <Part title={t('With the selection')}>
        <div className="-mx-1 flex">
          <IconButton label={withKeys(t('Duplicate'), 'duplicate')} onClick={() => duplicate(actions)}>
            <Copy size={17} aria-hidden />
          </IconButton>
          <IconButton label={t('Mirror left and right')} onClick={() => mirror(actions, 90)}>
            <FlipVertical2 size={17} aria-hidden />
          </IconButton>
          <IconButton label={t('Mirror up and down')} onClick={() => mirror(actions, 0)}>
            <FlipHorizontal2 size={17} aria-hidden />
          </IconButton>
          <IconButton label={withKeys(t('Group'), 'group')} disabled={count < 2} onClick={() => group(actions)}>
            <GroupIcon size={17} aria-hidden />
          </IconButton>
          <IconButton label={withKeys(t('Take the group apart'), 'ungroup')} onClick={() => ungroup(actions)}>
            <Ungroup size={17} aria-hidden />
          </IconButton>
          <IconButton
            label={t('To the front (Shift Page Up; a step: Page Up)')}
            onClick={() => order(actions, 'front')}
          >
            <ArrowUpToLine size={17} aria-hidden />
          </IconButton>
          <IconButton
            label={t('To the back (Shift Page Down; a step: Page Down)')}
            onClick={() => order(actions, 'back')}
          >
            <ArrowDownToLine size={17} aria-hidden />
          </IconButton>
          <IconButton label={t('Lock')} onClick={() => lock(actions)}>
            <Lock size={17} aria-hidden />
          </IconButton>
        </div>
        {count > 1 && (
          <div className="-mx-1 flex">
            {combinings.map(({ value, text, icon: Icon }) => (
              <IconButton key={value} label={text} onClick={() => void combine(actions, value)}>
                <Icon size={17} aria-hidden />
              </IconButton>
            ))}
          </div>
        )}
        <BurntAs />
        <PaintPart />
        <TextAlong />
      </Part>
      <AlignPart />
      <PlacePart />
      <RepeatPart />
      <MendPart />
    </>
  );
}
