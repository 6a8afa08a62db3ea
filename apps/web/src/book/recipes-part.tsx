import type { Machine } from '@lambent/core/machine';
import type { Material } from '@lambent/core/recipes';
import { t } from '../words/words.ts';
import { NewRecipe } from './new-recipe.tsx';
import { recipeLines } from './recipe-line.ts';
import { RecipeTable } from './recipe-table.tsx';
import type { BookHold } from './use-book.ts';

interface Props {
  material: Material;
  machines: readonly Machine[];
  book: BookHold;
}

/** What is known of a material: its recipes, and the way to a new one. */
export function RecipesPart({ material, machines, book }: Props) {
  const lines = recipeLines(material, machines, book);
  const homeless = material.recipes.filter(({ archived }) => !archived).length - lines.length;
  return (
    <section aria-label={t('Recipes')} className="mt-5">
      <div className="overflow-hidden rounded-[10px] border border-line bg-paper">
        {lines.length > 0 ? (
          <RecipeTable lines={lines} />
        ) : (
          <p className="px-3 py-4 text-quiet">
            {material.forbidden
              ? t('It must never be lasered, and has no recipes.')
              : t('Nothing is known of it yet. Burn a test card, or type what you copied from elsewhere.')}
          </p>
        )}
      </div>
      {homeless > 0 && (
        <p className="mt-2 text-quiet">
          {t(
            homeless === 1
              ? 'One recipe is for a machine that the shop no longer has.'
              : '{{homeless}} recipes are for machines that the shop no longer has.',
            { homeless },
          )}
        </p>
      )}
      {!material.forbidden && <NewRecipe material={material} machines={machines} book={book} />}
    </section>
  );
}
