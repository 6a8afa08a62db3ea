import type { Settings, SettingsDto } from '@lambent/contracts';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { takeDateOrder } from '../stores/dates.ts';
import { takeNumberStyle } from '../stores/numbers.ts';
import { takeShopSpeedUnit } from '../stores/speed-unit.ts';

/** What the shop has settled, and how it is changed: each setting where it is typed. */
export function useSettings(): {
  readonly settings: Settings | undefined;
  /** @returns whether it was taken */
  readonly settle: (part: SettingsDto) => Promise<boolean>;
} {
  const queries = useQueryClient();
  const settings = useQuery({ queryKey: ['settings'], queryFn: api.settings }).data;
  const settle = async (part: SettingsDto) => {
    try {
      const next = await api.settle(part);
      takeSettings(next);
      queries.setQueryData(['settings'], next);
      return true;
    } catch (error) {
      toast.error(`That was not settled. ${sentenceOf(error)}`);
      return false;
    }
  };
  return { settings, settle };
}

/** Has the page go by what the shop has settled. */
export function takeSettings({ speedUnit, dates, numbers }: Settings): void {
  takeShopSpeedUnit(speedUnit);
  takeDateOrder(dates);
  takeNumberStyle(numbers);
}
