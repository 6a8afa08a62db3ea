import type { LengthUnit } from '@lambent/core/units';
import { create } from 'zustand';

interface LengthUnits {
  /** What the shop counts lengths in. */
  readonly shop: LengthUnit;
  /** What the job that is open does; null while none is. */
  readonly job: LengthUnit | null;
}

const store = create<LengthUnits>(() => ({ shop: 'mm', job: null }));

const shown = ({ job, shop }: LengthUnits) => job ?? shop;

/** The unit that lengths are shown in now. */
export function shownUnit(): LengthUnit {
  return shown(store.getState());
}

/** The same, kept up to date. */
export function useShownUnit(): LengthUnit {
  return store(shown);
}

/** Goes by what the shop has settled. */
export function takeShopLengthUnit(shop: LengthUnit): void {
  store.setState({ shop });
}

/** Goes by the job that is open; null once none is. */
export function takeJobLengthUnit(job: LengthUnit | null): void {
  store.setState({ job });
}
