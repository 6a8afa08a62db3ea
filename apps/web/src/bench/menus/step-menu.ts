import { orderSteps, switchLayer } from '@lambent/core/edits';
import { type PlanStep, type PreparedLayer, stepTitle } from '@lambent/core/plan';
import { ArrowLeft, ArrowRight, Power, PowerOff, Scan, SquareDashedMousePointer } from 'lucide-react';
import type { MenuEntry } from '../../ui/context-menu-place.ts';
import { said, t } from '../../words/words.ts';
import type { BenchActions } from '../state/bench-state.ts';
import { beginsAt, planOf } from '../state/plan.ts';
import type { Menu } from './bed-menu.ts';

/** What can be done with a step of the plan. */
export function stepMenu(actions: BenchActions, step: PlanStep): Menu {
  const state = actions.get();
  const plan = planOf(state);
  const ids = plan?.steps.map(({ id }) => id) ?? [];
  const place = ids.indexOf(step.id);
  const move = (places: number) => {
    const order = ids.filter((id) => id !== step.id);
    order.splice(place + places, 0, step.id);
    actions.edit(t('change the burn order'), (job) => orderSteps(job, order));
  };
  const items = state.prepared.layers.find(({ id }) => id === step.preparedId)?.placed.map(({ item }) => item.id) ?? [];
  const order: MenuEntry[] = [
    { text: t('Burn it earlier'), icon: ArrowLeft, run: () => move(-1), disabled: place <= 0 },
    { text: t('Burn it later'), icon: ArrowRight, run: () => move(1), disabled: place < 0 || place === ids.length - 1 },
  ];
  const looking: MenuEntry[] = [
    { text: t('Select what it burns'), icon: SquareDashedMousePointer, run: () => actions.select(items) },
    { text: t('See it in the preview'), icon: Scan, run: () => plan && actions.preview(beginsAt(plan, step.id)) },
  ];
  const off: MenuEntry = {
    text: t('Leave {{layerName}} out of this run', { layerName: step.layerName }),
    icon: PowerOff,
    run: () =>
      actions.edit(t('switch {{layerName}} off', { layerName: step.layerName }), (job) =>
        switchLayer(job, step.layerId, false, state.prepared.run.id),
      ),
  };
  return { title: said(stepTitle(step)), parts: [looking, order, [off]] };
}

/** What can be done with a layer that does not burn in this run. */
export function idleMenu(actions: BenchActions, { layer, on, placed }: PreparedLayer): Menu {
  const { run } = actions.get().prepared;
  const items = placed.map(({ item }) => item.id);
  const looking: MenuEntry = {
    text: t('Select what is on it'),
    icon: SquareDashedMousePointer,
    run: () => actions.select(items),
    disabled: items.length === 0,
  };
  const burning: MenuEntry = {
    text: t('Burn {{name}} in this run', { name: layer.name }),
    icon: Power,
    run: () =>
      actions.edit(t('switch {{name}} on', { name: layer.name }), (job) => switchLayer(job, layer.id, true, run.id)),
  };
  return { title: layer.name, parts: [[looking], on ? [] : [burning]] };
}
