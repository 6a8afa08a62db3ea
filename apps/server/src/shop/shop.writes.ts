import { startingKeys } from '@lambent/core/colours';
import type { Shop } from '@lambent/core/recipes';
import { MaterialEntity, RecipeEntity } from '../book/book.entities.ts';
import { materialRow, recipeRow } from '../book/book-rows.ts';
import { ColourKeyEntity } from '../colour-keys/colour-key.entity.ts';
import type { Writing } from '../data/writing.ts';
import { MachineEntity } from '../machines/machine.entity.ts';
import { noPassword } from '../people/passwords.ts';
import { PersonEntity } from '../people/people.entities.ts';
import { SettingEntity } from '../settings/setting.entity.ts';

/** Gives a shop that has no colour key its first one: every job goes by one. */
export async function beginShop(writing: Writing): Promise<void> {
  if ((await writing.count(ColourKeyEntity)) > 0) return;
  const [{ key: definition }] = startingKeys;
  await writing.insert(ColourKeyEntity, { id: definition.id, position: 0, definition });
}

/** Everything that a shop holds, what hangs on others first. */
const tables = [
  'mails',
  'messages',
  'shared_parts',
  'quotes',
  'day_blocks',
  'sendings',
  'estimates',
  'job_steps',
  'burnt_pictures',
  'runs',
  'originals',
  'versions',
  'drawing_pictures',
  'drawings',
  'jobs',
  'pictures',
  'fonts',
  'book_changes',
  'recipes',
  'materials',
  'number_families',
  'colour_keys',
  'machines',
  'settings',
];

/** Takes everything out of a shop, as if it were new; its own people stay, those of a demo go. */
export async function emptyShop(writing: Writing): Promise<void> {
  await writing.delete(PersonEntity, { passwordHash: noPassword });
  for (const table of tables) await writing.query(`DELETE FROM ${table}`);
}

/** Fills an empty shop. */
export async function loadShop(writing: Writing, shop: Shop): Promise<void> {
  for (const [position, definition] of shop.machines.entries())
    await writing.insert(MachineEntity, { id: definition.id, position, definition });
  for (const [position, definition] of shop.keys.entries())
    await writing.insert(ColourKeyEntity, { id: definition.id, position, definition });
  if (shop.pricing) await writing.insert(SettingEntity, { name: 'pricing', value: JSON.stringify(shop.pricing) });
  for (const [position, material] of shop.materials.entries()) {
    await writing.insert(MaterialEntity, { ...materialRow(material), version: 1, position });
    for (const recipe of material.recipes)
      await writing.insert(RecipeEntity, { ...recipeRow(recipe), version: 1, materialId: material.id });
  }
}
