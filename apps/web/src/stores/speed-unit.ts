import { type SpeedUnit, speedUnits } from '@lambent/core/units';
import { create } from 'zustand';

const place = 'speed-unit';

interface SpeedUnits {
  /** What the shop reckons speeds in. */
  readonly shop: SpeedUnit;
  /** What whoever sits here does instead; null where they take the shop's. */
  readonly own: SpeedUnit | null;
}

const store = create<SpeedUnits>(() => ({
  shop: 'mm/s',
  // Where there is no browser, as in tests, nothing was chosen.
  own: speedUnits.find((unit) => unit === globalThis.localStorage?.getItem(place)) ?? null,
}));

/** The unit that speeds are shown and typed in. */
export function useSpeedUnit(): SpeedUnit {
  return store(({ own, shop }) => own ?? shop);
}

/** The same, where nothing is to follow it. */
export function shownSpeedUnit(): SpeedUnit {
  const { own, shop } = store.getState();
  return own ?? shop;
}

/** Both of them, to choose from. */
export const useSpeedUnits = store;

/** Takes a unit of one's own; null goes by the shop's again. */
export function chooseSpeedUnit(own: SpeedUnit | null): void {
  if (own) localStorage.setItem(place, own);
  else localStorage.removeItem(place);
  store.setState({ own });
}

/** Goes by what the shop has settled. */
export function takeShopSpeedUnit(shop: SpeedUnit): void {
  store.setState({ shop });
}
