import type { CardSetting } from '../../document/card.ts';
import { type CardRange, settingOf } from '../../settings/settings.ts';

/** What a test card says of something that it tries. */
interface CardSettingWords extends CardRange {
  /** Such as `Line spacing`. */
  readonly name: string;
  /** What stands behind a value that is typed, such as `mm`. */
  readonly unit: string;
}

/** Shares of the power, as pictures burn with them. */
const greys: CardSettingWords = { name: 'Grey', unit: '%', counted: '% grey', least: 0, most: 100 };

/**
 * What a card calls a setting, counts it in, and may try of it.
 * @throws RangeError where no card tries the setting
 */
export function cardSettingOf(setting: CardSetting): CardSettingWords {
  if (setting === 'greyPercent') return greys;
  const { words, unit, onCards } = settingOf(setting);
  if (!onCards) throw new RangeError(`cardSettingOf: no card tries “${setting}”`);
  return { name: words[0].toUpperCase() + words.slice(1), unit, ...onCards };
}
