import { type Material, type StartingMaterial, startingMaterials } from '@lambent/core/recipes';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { askWho } from '../stores/who.ts';
import { asLength } from '../ui/figures.ts';
import { Tick } from '../ui/tick.tsx';
import { t } from '../words/words.ts';
import { StepFrame } from './step-frame.tsx';

const keyOf = ({ name, thicknessMm }: Pick<Material, 'name' | 'thicknessMm'>) => `${name} ${thicknessMm}`;

/** The first materials, from a list of what most shops burn on. They come without a recipe: nothing burns by a guess. */
export function MaterialStep({ materials, next }: { materials: readonly Material[]; next: () => void }) {
  const queries = useQueryClient();
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const [isAdding, setAdding] = useState(false);
  const known = new Set(materials.map(keyOf));
  const chosen = startingMaterials.filter((material) => ticked.has(keyOf(material)) && !known.has(keyOf(material)));
  const add = async () => {
    const author = await askWho();
    if (author === null) return;
    setAdding(true);
    try {
      for (const material of chosen) await api.addMaterial(author, material);
      next();
    } catch (error) {
      toast.error(sentenceOf(error));
    } finally {
      setAdding(false);
      await queries.invalidateQueries({ queryKey: ['materials'] });
    }
  };
  const tick = (key: string) =>
    setTicked((before) => new Set(before.has(key) ? [...before].filter((known) => known !== key) : [...before, key]));
  return (
    <StepFrame
      title={t('Materials')}
      about={t(
        'Tick what you burn on. It comes without power and speed: a test card finds them, or you type what you know. Others are added in the Recipe book, with sheets and offcuts in stock.',
      )}
      finish={{
        text: isAdding
          ? t('Adding them…')
          : t('Add {{chosen}}', {
              chosen: chosen.length === 1 ? t('1 material') : t('{{chosen}} materials', { chosen: chosen.length }),
            }),
        isReady: chosen.length > 0 && !isAdding,
        run: () => void add(),
      }}
      skip={next}
      skipText={materials.length > 0 ? t('Go on') : t('Skip this step')}
    >
      <div className="grid grid-cols-1 gap-x-5 gap-y-3 sm:grid-cols-2 lg:grid-cols-3">
        {groupsOf(startingMaterials).map(([name, group]) => (
          <fieldset key={name} className="min-w-0">
            <legend className="mb-1 flex items-center gap-2 font-semibold">
              <span className="size-3.5 rounded border border-line" style={{ background: group[0].tone }} aria-hidden />
              {name}
            </legend>
            <div className="flex flex-wrap gap-x-4 gap-y-1">
              {group.map((material) => {
                const key = keyOf(material);
                return known.has(key) ? (
                  <span key={key} className="text-quiet">
                    {t('{{thicknessMm}}, in the book already', { thicknessMm: asLength(material.thicknessMm) })}
                  </span>
                ) : (
                  <Tick key={key} checked={ticked.has(key)} set={() => tick(key)}>
                    {material.forbidden ? t('marked as never to be lasered') : asLength(material.thicknessMm)}
                  </Tick>
                );
              })}
            </div>
          </fieldset>
        ))}
      </div>
    </StepFrame>
  );
}

/** Materials of one name together, in their order. */
function groupsOf(materials: readonly StartingMaterial[]): [string, StartingMaterial[]][] {
  const names = [...new Set(materials.map(({ name }) => name))];
  return names.map((name) => [name, materials.filter((material) => material.name === name)]);
}
