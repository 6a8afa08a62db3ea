import type { Unowned } from '../data/owned.ts';
import type { Writing } from '../data/writing.ts';
import { SettingEntity } from './setting.entity.ts';

/** Puts settings of the shop in place of those it had. */
export async function settle(writing: Writing, settings: readonly Unowned<SettingEntity>[]): Promise<void> {
  for (const { name, value } of settings) {
    await writing.delete(SettingEntity, { name });
    await writing.insert(SettingEntity, { name, value });
  }
}
