import type { Machine } from '@lambent/core/machine';
import { burntOperations, operationOf } from '@lambent/core/operations';
import { type Material, type Recipe, settingsInRecipe } from '@lambent/core/recipes';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { api } from '../api.ts';
import { Button } from '../ui/button.tsx';
import { Choice } from '../ui/choice.tsx';
import { said, t } from '../words/words.ts';
import { today } from './recipe-line.ts';
import type { BookHold } from './use-book.ts';

interface Props {
  material: Material;
  machines: readonly Machine[];
  book: BookHold;
}

/** Makes a recipe of a material on a machine, like the one that there is, and to be changed in the table. */
export function NewRecipe({ material, machines, book }: Props) {
  const [chosen, setMachineId] = useState<string | null>(null);
  const machineId = chosen ?? machines[0]?.id ?? '';
  const [operation, setOperation] = useState<Recipe['operation']>('cut');
  const make = () => {
    const known = material.recipes.filter(
      (entry) => !entry.archived && entry.machineId === machineId && entry.operation === operation,
    );
    const [like] = known;
    const recipe: Recipe = {
      powerPercent: 10,
      speedMmPerS: 100,
      passes: 1,
      lineSpacingMm: 0.1,
      note: '',
      ...(like ? settingsInRecipe(like) : {}),
      machineId,
      operation,
      ...(like ? { variant: `variant ${known.length + 1}` } : {}),
      evidence: 'copied',
      proof: { by: book.by, on: today(), what: 'typed into the book' },
    };
    void book.change((author) => api.addRecipe(author, material.id, recipe));
  };
  return (
    <div className="mt-2 flex items-center gap-2">
      <Choice
        label={t('Machine of the new recipe')}
        look="chip"
        value={machineId}
        options={machines.map(({ id, name }) => ({ value: id, text: name }))}
        choose={setMachineId}
      />
      <Choice
        label={t('Operation of the new recipe')}
        look="chip"
        value={operation}
        options={burntOperations.map((value) => ({ value, text: said(operationOf(value).name) }))}
        choose={setOperation}
      />
      <Button onClick={make}>
        <Plus size={15} aria-hidden />
        {t('New recipe')}
      </Button>
    </div>
  );
}
