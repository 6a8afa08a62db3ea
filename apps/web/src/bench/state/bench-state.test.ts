import { describe, expect, test } from '@jest/globals';
import { checkJob } from '@lambent/core/checks';
import type { JobDocument } from '@lambent/core/document';
import { assignPaint, moveItems, removeItems, setMachine, switchLayer } from '@lambent/core/edits';
import { planJob } from '@lambent/core/plan';
import { benchWith, shop, square } from '../fixtures/bench.ts';
import { standing as art } from '../stages/art/standing.ts';
import { standing as bed } from '../stages/bed/standing.ts';
import { standing as burn } from '../stages/burn/standing.ts';
import { standing as check } from '../stages/check/standing.ts';
import { standing as colours } from '../stages/colours/standing.ts';
import { standing as recipe } from '../stages/recipe/standing.ts';
import type { StageDefinition } from '../stages/stage.ts';
import type { BenchActions } from './bench-state.ts';
import { loadBuilders } from './built-following.ts';
import { jobOf, machineOf, unitOf } from './document.ts';
import { isBlocked, isPlanned, planOf } from './plan.ts';

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

  test('no edit makes a drawing larger than can be saved', () => {
    const { actions } = benchWith(square(20, 20, 30));
    const before = jobOf(actions.get());
    const filled = (count: number) => (job: JobDocument) => ({
      ...job,
      drawing: { ...job.drawing, items: Array(count).fill(job.drawing.items[0]) },
    });
    expect(actions.edit('fill', filled(200_001))).toBe(false);
    expect(jobOf(actions.get())).toBe(before);
    expect(actions.get().save.kind).toBe('saved');
  });

  test('a job is changed by an edit, saved again by undoing it, and stays in conflict until that is settled', () => {
    const { actions } = benchWith(square(20, 20, 30));
    const move = () => actions.edit('move', (job) => moveItems(job, new Set(['i1']), 1, 0));
    expect(actions.get().save.kind).toBe('saved');
    move();
    expect(actions.get().save.kind).toBe('changed');
    actions.undo();
    expect(actions.get().save.kind).toBe('saved');
    actions.failSave({ kind: 'conflict', latest: 7 });
    move();
    expect(actions.get().save).toEqual({ kind: 'conflict', latest: 7 });
  });

  test('what was built stays as it is while its builders are not there, and follows once they are', async () => {
    const { actions } = benchWith(square(20, 20, 30));
    const plays = { loose: 0.3, sliding: 0.15, snug: 0.05, press: -0.05 };
    const thing = { id: 'box', builder: 'joined-box', numbers: { width: 50 }, thicknessMm: 3, plays };
    const part = { thingId: 'box', partId: 'front', what: 'cut' } as const;
    actions.edit('take back an older version', (job) => ({
      ...job,
      built: [thing],
      drawing: { ...job.drawing, items: job.drawing.items.map((item) => ({ ...item, part })) },
    }));
    const [{ shape }] = jobOf(actions.get()).drawing.items;
    expect(jobOf(actions.get()).built).toEqual([thing]);
    await loadBuilders();
    actions.edit('other numbers', (job) => ({ ...job, built: [{ ...thing, numbers: { width: 60 } }] }));
    expect(jobOf(actions.get()).drawing.items[0].shape).not.toEqual(shape);
    expect(jobOf(actions.get()).drawing.items.map((item) => item.part?.partId)).toContain('back');
  });

  test('an edit ends the preview and whatever is under way', () => {
    const { actions } = benchWith(square(20, 20, 30));
    actions.preview(4);
    actions.showLive([1, 0, 0, 1, 5, 5]);
    actions.edit('move', (job) => moveItems(job, new Set(['i1']), 1, 0));
    expect(actions.get()).toMatchObject({ previewS: null, live: null });
  });
});

describe('slices', () => {
  test('the drag that is let go leaves nothing of it on the bed, and keeps the selection', () => {
    const { actions } = benchWith(square(20, 20, 30));
    actions.select(['i1']);
    actions.showLive([1, 0, 0, 1, 5, 5]);
    actions.showFrame({ minX: 0, minY: 0, maxX: 1, maxY: 1 });
    actions.showGuide({ id: 'g', axis: 'x', at: 50 });
    actions.showCaught({ kind: 'end', x: 1, y: 2 });
    actions.endDrag();
    expect(actions.get()).toMatchObject({
      live: null,
      frame: null,
      guideDraft: null,
      caught: { snap: null, gaps: [] },
    });
    expect([...actions.get().selection]).toEqual(['i1']);
  });

  test('a tool taken to hand is caught by nothing yet; the draft of a drawer stays', () => {
    const { actions } = benchWith('');
    actions.showDraft({ dots: [{ x: 1, y: 1 }] });
    actions.showCaught({ kind: 'end', x: 1, y: 2 });
    actions.takeTool({ name: 'pick' } as never);
    expect(actions.get().caught.snap).toBeNull();
    expect(actions.get().draft).toMatchObject({ outline: null, dots: [{ x: 1, y: 1 }] });
  });

  test('a plan is of one document, run and shop: with another one it is still shown, and not the plan any more', () => {
    const { actions } = benchWith(square(20, 20, 30));
    const subject = { document: jobOf(actions.get()), runId: actions.get().prepared.run.id, head: null };
    const plan = planJob(actions.get().prepared);
    expect(isPlanned(actions.get())).toBe(false);
    actions.tellPlanned(0.4);
    expect(actions.get().plannedShare).toBe(0.4);
    actions.showPlan(subject, { plan, findings: [], pieces: [] });
    expect(isPlanned(actions.get())).toBe(true);
    expect(actions.get().plannedShare).toBeNull();
    actions.takeShop({ ...shop, materials: [] });
    expect([isPlanned(actions.get()), planOf(actions.get())]).toEqual([false, plan]);
    actions.showPlan(subject, { plan, findings: [], pieces: [] });
    expect(isPlanned(actions.get())).toBe(true);
    actions.edit('move', (job) => moveItems(job, new Set(['i1']), 1, 0));
    expect([isPlanned(actions.get()), planOf(actions.get())]).toEqual([false, plan]);
    actions.undo();
    expect(isPlanned(actions.get())).toBe(true);
  });

  test('nothing is sent before it is planned, when planning fails, or when something wrong is found', () => {
    const { actions } = benchWith(square(20, 20, 30));
    const subject = { document: jobOf(actions.get()), runId: actions.get().prepared.run.id, head: null };
    const plan = planJob(actions.get().prepared);
    const finding = { code: 'off-bed', sentence: 'It lies off the bed.', items: [] } as const;
    expect(isBlocked(actions.get())).toBe(true);
    actions.showPlan(subject, { plan, findings: [{ ...finding, level: 'notes' }] as never, pieces: [] });
    expect(isBlocked(actions.get())).toBe(false);
    actions.showPlan(subject, { plan, findings: [{ ...finding, level: 'blocks' }] as never, pieces: [] });
    expect(isBlocked(actions.get())).toBe(true);
    actions.failPlan(subject, 'It was too much.');
    expect(actions.get().planning).toMatchObject({ answer: null, trouble: 'It was too much.', subject });
    expect(isBlocked(actions.get())).toBe(true);
  });

  test('another burn is chosen of the card that is read, and none where none is read', () => {
    const { actions } = benchWith('');
    actions.readBurn('r1');
    expect(actions.get().readCard).toBeNull();
    actions.startReading('c1');
    actions.readBurn('r1');
    expect(actions.get().readCard).toEqual({ id: 'c1', runId: 'r1' });
    actions.startReading('c2');
    expect(actions.get().readCard).toEqual({ id: 'c2', runId: null });
    actions.endReading();
    expect(actions.get().readCard).toBeNull();
  });

  test('files wait in order; what is read when the next one is asked for is given up', () => {
    const { actions } = benchWith('');
    const [a, b] = ['a.svg', 'b.svg'].map((name) => new File([], name));
    actions.queueFiles([a]);
    actions.queueFiles([b]);
    expect(actions.nextFile()).toBe(a);
    const turn = actions.beginReading('a.svg', { page: 2 });
    actions.countParts(7);
    const again = actions.beginReading('a.svg', {});
    expect([turn.stop.signal.aborted, again.stop.signal.aborted, again.id === turn.id]).toEqual([true, false, false]);
    expect(actions.get().incoming).toMatchObject({ parts: 0, waiting: [b], reading: again });
    expect(actions.nextFile()).toBe(b);
    expect(again.stop.signal.aborted).toBe(true);
    actions.refuseFile('b.svg', 'It holds nothing.');
    expect(actions.get().incoming).toMatchObject({
      reading: null,
      refused: { file: 'b.svg', why: 'It holds nothing.' },
    });
    actions.queueFiles([a]);
    const last = actions.beginReading('a.svg', {});
    expect(actions.get().incoming.refused).toBeNull();
    actions.stopReading();
    expect([last.stop.signal.aborted, actions.get().incoming.waiting]).toEqual([true, []]);
    expect(actions.nextFile()).toBeUndefined();
  });
});

describe('stages', () => {
  const plan = (actions: BenchActions) => {
    const { prepared } = actions.get();
    const burn = planJob(prepared);
    const subject = { document: jobOf(actions.get()), runId: prepared.run.id, head: null };
    actions.showPlan(subject, { plan: burn, findings: checkJob(prepared, burn), pieces: [] });
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
    ['off the bed', standing(square(-5, 20, 30)), ['settled', '1!', 'settled', 'settled', '1!', 'untouched']],
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
