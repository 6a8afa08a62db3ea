import { describe, expect, test } from '@jest/globals';
import { checkJob } from '@lambent/core/checks';
import { assignPaint, moveItems, removeItems, setMachine, switchLayer } from '@lambent/core/edits';
import { planJob } from '@lambent/core/plan';
import { benchWith, square } from './fixtures/bench.ts';
import { standing as art } from './stages/art/standing.ts';
import { standing as bed } from './stages/bed/standing.ts';
import { standing as burn } from './stages/burn/standing.ts';
import { standing as check } from './stages/check/standing.ts';
import { standing as colours } from './stages/colours/standing.ts';
import { standing as recipe } from './stages/recipe/standing.ts';
import type { StageDefinition } from './stages/stage.ts';
import { type BenchActions, jobOf, machineOf, unitOf } from './store.ts';

describe('edits', () => {
  test('what is derived follows the job, back and forth', () => {
    const { actions } = benchWith(square(20, 20, 30, '#123456'));
    expect(actions.get().prepared.meaning.undecided).toHaveLength(1);
    actions.edit('say what it means', (job) =>
      assignPaint(job, { part: 'stroke', colour: '#123456', widthMm: 0.1 }, 'cut'),
    );
    expect(actions.get().prepared.meaning.undecided).toHaveLength(0);
    actions.undo();
    expect(actions.get().prepared.meaning.undecided).toHaveLength(1);
    actions.redo();
    expect(actions.get().prepared.meaning.undecided).toHaveLength(0);
    actions.edit('change machine', (job) => setMachine(job, 'curlew'));
    expect(machineOf(actions.get()).name).toBe('Curlew');
    expect(unitOf(actions.get())).toBe('mm');
  });

  test('the selection lets go of what is no longer there, and nothing else', () => {
    const { actions } = benchWith(square(20, 20, 30) + square(60, 20, 30));
    actions.select(['i1', 'i2']);
    const { selection } = actions.get();
    actions.edit('move', (job) => moveItems(job, selection, 1, 1));
    expect(actions.get().selection).toBe(selection);
    actions.edit('delete', (job) => removeItems(job, new Set(['i1'])));
    expect([...actions.get().selection]).toEqual(['i2']);
    actions.undo();
    expect([...actions.get().selection]).toEqual(['i2']);
  });

  test('a job is changed by an edit, saved again by undoing it, and stays in conflict until that is settled', () => {
    const { actions } = benchWith(square(20, 20, 30));
    const move = () => actions.edit('move', (job) => moveItems(job, new Set(['i1']), 1, 0));
    expect(actions.get().save.kind).toBe('saved');
    move();
    expect(actions.get().save.kind).toBe('changed');
    actions.undo();
    expect(actions.get().save.kind).toBe('saved');
    actions.set({ save: { kind: 'conflict', latest: 7 } });
    move();
    expect(actions.get().save).toEqual({ kind: 'conflict', latest: 7 });
  });

  test('an edit ends the preview and whatever is under way', () => {
    const { actions } = benchWith(square(20, 20, 30));
    actions.set({ previewS: 4, live: [1, 0, 0, 1, 5, 5] });
    actions.edit('move', (job) => moveItems(job, new Set(['i1']), 1, 0));
    expect(actions.get()).toMatchObject({ previewS: null, live: null });
  });
});

describe('stages', () => {
  const plan = (actions: BenchActions) => {
    const { prepared } = actions.get();
    const burn = planJob(prepared);
    actions.set({ planned: { plan: burn, findings: checkJob(prepared, burn) }, plannedFor: jobOf(actions.get()) });
  };
  const standing = (body: string, material: string | null = 'cork-3', change?: (actions: BenchActions) => void) => {
    const { actions } = benchWith(body, material);
    change?.(actions);
    plan(actions);
    return (standing: StageDefinition['standing']) => {
      const state = standing(actions.get());
      return state.kind === 'wants' ? `${state.count}${state.grave ? '!' : ''}` : state.kind;
    };
  };
  const all = [bed, art, colours, recipe, check, burn];

  test.each<[string, ReturnType<typeof standing>, string[]]>([
    [
      'nothing drawn',
      standing('', null),
      ['untouched', 'untouched', 'untouched', 'untouched', 'untouched', 'untouched'],
    ],
    ['all is well', standing(square(20, 20, 30)), ['settled', 'settled', 'settled', 'settled', 'settled', 'untouched']],
    ['no sheet', standing(square(20, 20, 30), null), ['untouched', 'settled', 'settled', '1!', '2!', 'untouched']],
    [
      'a strange colour',
      standing(square(20, 20, 30, '#123456')),
      ['settled', 'settled', '1!', 'settled', '1!', 'untouched'],
    ],
    ['off the bed', standing(square(-5, 20, 30)), ['settled', '2!', 'settled', 'settled', '2!', 'untouched']],
    ['into the margin', standing(square(4, 20, 30)), ['settled', 'settled', 'settled', 'settled', '1', 'untouched']],
    [
      'never to be lasered',
      standing(square(20, 20, 30), 'pvc-sheet'),
      ['settled', 'settled', 'settled', '1!', '1!', 'untouched'],
    ],
    [
      'a layer off is only noted',
      standing(square(20, 20, 30) + square(60, 20, 30, '#00806A'), 'cork-3', (actions) =>
        actions.edit('off', (job) => switchLayer(job, 'score', false)),
      ),
      ['settled', 'settled', 'settled', 'settled', 'settled', 'untouched'],
    ],
  ])('%s', (_, state, expected) => {
    expect(all.map(state)).toEqual(expected);
  });
});
