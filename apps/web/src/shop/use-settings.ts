import type { Settings, SettingsDto } from '@lambent/contracts';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { takeDateOrder } from '../stores/dates.ts';
import { takeShopLengthUnit } from '../stores/length-unit.ts';
import { takeNumberStyle } from '../stores/numbers.ts';
import { takeShopSpeedUnit } from '../stores/speed-unit.ts';
import { t } from '../words/words.ts';

/** A change of settings: its parts, or how they follow from what is settled when its turn comes. */
type SettingsChange = SettingsDto | ((now: Settings) => SettingsDto);

/** How a setting is changed; answers whether it was taken. */
export type Settle = (change: SettingsChange) => Promise<boolean>;

/** Changes go one after the other, so that each builds on the one before. */
let last: Promise<unknown> = Promise.resolve();

/** What the shop has settled, and how it is changed: each setting where it is typed. */
export function useSettings(): {
  readonly settings: Settings | undefined;
  readonly settle: Settle;
} {
  const queries = useQueryClient();
  const settings = useQuery({ queryKey: ['settings'], queryFn: api.settings }).data;
  const change = async (wanted: SettingsChange) => {
    try {
      const now = await queries.ensureQueryData({ queryKey: ['settings'], queryFn: api.settings });
      const next = await api.settle(typeof wanted === 'function' ? wanted(now) : wanted);
      takeSettings(next);
      queries.setQueryData(['settings'], next);
      return true;
    } catch (error) {
      toast.error(t('That was not saved. {{error}}', { error: sentenceOf(error) }));
      return false;
    }
  };
  const settle = (wanted: SettingsChange) => {
    const settled = last.then(() => change(wanted));
    last = settled;
    return settled;
  };
  return { settings, settle };
}

/** Has the page go by what the shop has settled. */
export function takeSettings({ lengthUnit, speedUnit, dates, numbers }: Settings): void {
  takeShopLengthUnit(lengthUnit);
  takeShopSpeedUnit(speedUnit);
  takeDateOrder(dates);
  takeNumberStyle(numbers);
}
