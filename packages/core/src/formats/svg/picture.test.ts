import { expect, test } from '@jest/globals';
import { box, item, jobWith, shop } from '../../fixtures/shop.ts';
import { prepareJob } from '../../plan/prepare.ts';
import { writePicture } from './picture.ts';

function pictureOf(job: ReturnType<typeof jobWith>): string {
  return writePicture(prepareJob(job, shop), new Map(), 1000);
}

/** The page of a picture: its left and upper edge, width and height, in mm. */
function pageOf(svg: string): number[] {
  const [, viewBox = ''] = /viewBox="([^"]*)"/.exec(svg) ?? [];
  return viewBox.split(' ').map(Number);
}

test('a card’s picture shows what is drawn with a little of the bed around it; the bed where nothing is', () => {
  const drawn = jobWith([item(box(10, 20, 400, 100), 'cut'), { ...item(box(900, 0, 10), 'cut'), hidden: true }]);
  expect(pageOf(pictureOf(drawn))).toEqual([-2, 8, 424, 124]);
  expect(pageOf(pictureOf(jobWith([item(box(10, 20, 10), 'cut')])))).toEqual([6, 16, 18, 18]);
  const { bedWidth, bedHeight } = shop.machines[0];
  expect(pageOf(pictureOf(jobWith([])))).toEqual([0, 0, bedWidth, bedHeight]);
});

test('what is parked beside the bed is left out, unless all of it is', () => {
  const parked = item(box(-80, 20, 30), 'cut', { parked: true });
  expect(pageOf(pictureOf(jobWith([item(box(10, 20, 10), 'cut'), parked])))).toEqual([6, 16, 18, 18]);
  expect(pageOf(pictureOf(jobWith([parked])))).toEqual([-84, 16, 38, 38]);
});

test('of places that are filled run by run it shows the first filling', () => {
  const row = (rowId: string, x: number) => ({
    piece: { ...item(box(x, 0, 10), 'engrave'), id: rowId, groupId: `of ${rowId}` },
    group: { id: `of ${rowId}`, name: rowId, parentId: null, row: { listId: 'names', rowId } },
  });
  const rows = [row('1', 0), row('2', 20), row('3', 0)];
  const run = (id: string, only: string[]) => ({ ...runOf(id), only });
  const runOf = (id: string) => ({ ...jobWith([]).runs[0], id });
  const job = jobWith(
    rows.map(({ piece }) => piece),
    { runs: [run('first', ['1', '2']), run('second', ['3'])] },
  );
  const laid = { ...job, drawing: { ...job.drawing, groups: rows.map(({ group }) => group) } };
  const paths = (svg: string) => svg.split('<path').length - 1;
  expect(paths(pictureOf(laid))).toBe(2);
  // In one run, all of it burns.
  expect(paths(pictureOf({ ...laid, runs: [runOf('all')] }))).toBe(3);
});
