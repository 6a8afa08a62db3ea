import type { LayerSettings } from '@lambent/core';

/** Changes one setting of a layer; what a field needs to show it. */
export interface SettingHold {
  readonly settings: Partial<LayerSettings>;
  readonly has: (setting: keyof LayerSettings) => boolean;
  readonly set: <K extends keyof LayerSettings>(setting: K) => (value: LayerSettings[K]) => undefined;
  /** Whether it was changed by hand, and what is wrong with it. */
  readonly look: (setting: keyof LayerSettings) => { marked: boolean; fault: string | undefined };
}

/** What the settings are called. */
export const settingWords: Record<keyof LayerSettings, string> = {
  powerPercent: 'power',
  speedMmPerS: 'speed',
  passes: 'passes',
  lineSpacingMm: 'line spacing',
  kerfMm: 'kerf',
  cornerPowerPercent: 'power at corners',
  focusMm: 'focus',
  focusStepMm: 'focus step',
  scanAngle: 'scan angle',
  bothWays: 'scan direction',
  runUpMm: 'run-up',
  air: 'air',
  pierceS: 'wait at starts',
  cornerWaitS: 'wait at corners',
};
