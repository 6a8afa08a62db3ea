import { orderSteps, switchLayer } from '@lambent/core/edits';
import { type PlanStep, type PreparedLayer, stepTitle } from '@lambent/core/plan';
import { ArrowLeft, ArrowRight, Power, PowerOff, Scan, SquareDashedMousePointer } from 'lucide-react';
import type { MenuEntry } from '../../ui/context-menu-place.ts';
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
    actions.edit('change the burn order', (job) => orderSteps(job, order));
  };
  const items = state.prepared.layers.find(({ id }) => id === step.preparedId)?.placed.map(({ item }) => item.id) ?? [];
  const order: MenuEntry[] = [
    { text: 'Burn it earlier', icon: ArrowLeft, run: () => move(-1), disabled: place <= 0 },
    { text: 'Burn it later', icon: ArrowRight, run: () => move(1), disabled: place < 0 || place === ids.length - 1 },
  ];
  const looking: MenuEntry[] = [
    { text: 'Select what it burns', icon: SquareDashedMousePointer, run: () => actions.select(items) },
    { text: 'See it in the preview', icon: Scan, run: () => plan && actions.preview(beginsAt(plan, step.id)) },
  ];
  const off: MenuEntry = {
    text: `Leave ${step.layerName} out of this run`,
    icon: PowerOff,
    run: () =>
      actions.edit(`switch ${step.layerName} off`, (job) =>
        switchLayer(job, step.layerId, false, state.prepared.run.id),
      ),
  };
  return { title: stepTitle(step), parts: [looking, order, [off]] };
}

/** What can be done with a layer that does not burn in this run. */
export function idleMenu(actions: BenchActions, { layer, on, placed }: PreparedLayer): Menu {
  const { run } = actions.get().prepared;
  const items = placed.map(({ item }) => item.id);
  const looking: MenuEntry = {
    text: 'Select what is on it',
    icon: SquareDashedMousePointer,
    run: () => actions.select(items),
    disabled: items.length === 0,
  };
  const burning: MenuEntry = {
    text: `Burn ${layer.name} in this run`,
    icon: Power,
    run: () => actions.edit(`switch ${layer.name} on`, (job) => switchLayer(job, layer.id, true, run.id)),
  };
  return { title: layer.name, parts: [[looking], on ? [] : [burning]] };
}
