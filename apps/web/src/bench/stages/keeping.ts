import type { Machine } from '@lambent/core/machine';
import type { Material } from '@lambent/core/recipes';
import { toast } from 'sonner';
import { api, sentenceOf } from '../../api.ts';
import { setWho, useWho } from '../../stores/who.ts';
import { t } from '../../words/words.ts';
import { useBench, useBenchActions } from '../context.ts';
import { jobOf } from '../state/document.ts';

/** Who says so: who is at this screen; the job's member to begin with. */
export function useLastWitness(): string {
  const member = useBench((state) => jobOf(state).member);
  return useWho() || member;
}

/** Keeps what the server was asked to keep of a material, and has the Bench go by it. @returns whether it was kept */
export function useKeeping(): (author: string, ask: () => Promise<Material>, words: string) => Promise<boolean> {
  const actions = useBenchActions();
  return async (author, ask, words) => {
    setWho(author);
    try {
      const kept = await ask();
      const { shop } = actions.get();
      actions.takeShop({ ...shop, materials: shop.materials.map((known) => (known.id === kept.id ? kept : known)) });
      toast.message(words);
      return true;
    } catch (error) {
      toast.error(sentenceOf(error));
      return false;
    }
  };
}

/**
 * Keeps figures that were measured of a machine, and has the Bench go by them.
 * @returns what asks for it: `change` is given the machine as it stands in the shop by then
 */
export function useKeepingMachine(): (
  machine: Pick<Machine, 'id' | 'name'>,
  change: (stored: Machine) => Partial<Machine>,
  words: string,
) => Promise<boolean> {
  const actions = useBenchActions();
  return async ({ id, name }, change, words) => {
    try {
      const stored = (await api.machines()).find((known) => known.id === id);
      if (!stored) throw new Error(t('{{name}} is not in the shop any more.', { name }));
      const kept = await api.changeMachine({ ...stored, ...change(stored) });
      const { shop } = actions.get();
      actions.takeShop({ ...shop, machines: shop.machines.map((known) => (known.id === id ? kept : known)) });
      toast.message(words);
      return true;
    } catch (error) {
      toast.error(sentenceOf(error));
      return false;
    }
  };
}
