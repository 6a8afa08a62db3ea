import { answerOf, putDown } from '@lambent/core/builders';
import { type ColourKey, drawnPaint } from '@lambent/core/colours';
import type { BuiltThing, JobDocument, Sheet } from '@lambent/core/document';
import { type Material, playsOf } from '@lambent/core/recipes';

/*
 * The demo jobs whose parts are built from numbers.
 */

/** A box for seed packets, with dividers and a lid that slides in, its parts in rows on a sheet. */
export function packetDrawer(job: JobDocument, sheet: Sheet, material: Material, key: ColourKey): JobDocument {
  const thing: BuiltThing = {
    id: 'demo.drawer',
    builder: 'joined-box',
    numbers: { width: 180, depth: 88, height: 60, lid: 'slides', dividersAlong: 2, dividersLower: 12 },
    thicknessMm: sheet.thicknessMm ?? material.thicknessMm,
    plays: playsOf(material),
  };
  const answer = answerOf(thing);
  if (!answer?.ok) throw new Error('The drawer for packets cannot be built.');
  const looks = { cut: drawnPaint(key, 'cut'), score: drawnPaint(key, 'score') };
  const rows = { x: sheet.x + 6, y: sheet.y + 6, rowMm: sheet.width - 12, gapMm: 4 };
  let made = 0;
  const put = putDown(job, thing, 'Drawer for packets', answer.built, { ...rows, looks }, () => `demo.part-${++made}`);
  return put.job;
}
