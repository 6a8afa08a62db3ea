import type { LayerSettings, SettingName } from '@lambent/core/settings';

/** Changes one setting of a layer; what a field needs to show it. */
export interface SettingHold {
  readonly settings: Partial<LayerSettings>;
  readonly has: (setting: SettingName) => boolean;
  readonly set: <Name extends SettingName>(setting: Name) => (value: LayerSettings[Name]) => undefined;
  /** Whether it was changed by hand, and what is wrong with it. */
  readonly look: (setting: SettingName) => { marked: boolean; fault: string | undefined };
}
