export type { BurntGrey } from './burnt-greys.ts';
export { type Grain, grainMethods, grains, grainWords } from './grain.ts';
export type { Air } from './setting.ts';
export {
  allSettings,
  type Beyond,
  beyondMachine,
  type LayerSettings,
  type SettingName,
  settingOf,
  settingsOf,
  usualSettings,
} from './settings.ts';
