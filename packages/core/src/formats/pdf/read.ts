import type { ReadingChoices } from '../../document/arrival.ts';
import type { Group } from '../../document/item.ts';
import { boxArea } from '../../geometry/areas/area.ts';
import { boxOf } from '../../geometry/paths/box.ts';
import type { Matrix } from '../../geometry/paths/matrix.ts';
import type { Assets } from '../assets.ts';
import { clipItems } from '../clipping.ts';
import { layersByGroup, noteLayers } from '../named-layers.ts';
import { Notes, type Reading } from '../reading.ts';
import { FileRefused } from '../refusal.ts';
import { convertedColours } from './colour-spaces.ts';
import { withPdf } from './engine.ts';
import { PageReader } from './page-reader.ts';
import { objectTexts } from './streams.ts';

/**
 * Reads a drawing from one page of a PDF, at true size: paths, text as outlines, pictures. What the page
 * crops or hides comes hidden.
 *
 * @param assets gives the files that stand in for fonts that are not embedded
 * @throws FileRefused when it is damaged, protected, or has no such page
 */
export function readPdf(
  bytes: Uint8Array,
  idFor: (place: string) => string,
  choices: ReadingChoices,
  assets: Assets,
): Promise<Reading> {
  return withPdf(bytes, assets, async (pdf, engine, rebuilt) => {
    const number = choices.page ?? 1;
    if (!(number >= 1 && number <= pdf.numPages)) {
      const count = pdf.numPages === 1 ? 'one page' : `${pdf.numPages} pages`;
      throw new FileRefused(`The PDF has ${count}; there is no page ${number}. Choose another one.`);
    }
    const page = await pdf.getPage(number);
    const viewport = page.getViewport({ scale: 25.4 / 72 });
    const operators = await page.getOperatorList({ annotationMode: engine.AnnotationMode.DISABLE });
    const notes = new Notes();
    if (rebuilt) {
      const said =
        'the file’s table of what it holds is missing or wrong, and was made again: look whether all is there';
      notes.add('changed', 'table-rebuilt', said);
    }
    const groups = new Map<string, Group>();
    const layers = await pdf.getOptionalContentConfig();
    const crop = boxArea(boxOf(0, 0, viewport.width, viewport.height));
    const layerOf = (props: { id: string }) => {
      const name = layers.getGroup(props.id)?.name;
      if (name && !groups.has(name)) groups.set(name, { id: idFor(`layer${groups.size}`), name, parentId: null });
      return { group: name ? (groups.get(name) ?? null) : null, shown: layers.isVisible(props) };
    };
    const reader = new PageReader(page, engine, idFor, notes, choices, layerOf, crop);
    await reader.run(operators, viewport.transform as unknown as Matrix);
    for (const { subtype } of await page.getAnnotations()) {
      if (subtype === 'Link' || subtype === 'Popup') continue;
      const what = subtype === 'Widget' ? 'a field of a form' : 'a remark made on the page';
      notes.add(
        'left-out',
        `annotation:${subtype}`,
        `${what} was left out; print the file to a PDF to have it drawn in`,
      );
    }
    const items = clipItems(reader.items, crop, notes, choices);
    const converted = convertedColours(await objectTexts(bytes));
    if (converted) {
      notes.add(
        'changed',
        'colours-converted',
        `the file’s colours are ${converted}, and were converted to RGB: they may come out a little off`,
      );
    }
    if (items.length === 0) notes.add('left-out', 'nothing-drawn', 'the page holds nothing that can be burnt');
    const used = new Set(items.map(({ groupId }) => groupId));
    const drawing = { items, groups: [...groups.values()].filter(({ id }) => used.has(id)) };
    const named = choices.layers === 'by-colour' ? [] : layersByGroup(drawing);
    noteLayers(named, notes);
    return {
      format: 'pdf',
      drawing,
      layers: named,
      pictures: reader.pictures,
      size: {
        pageWidthMm: viewport.width,
        pageHeightMm: viewport.height,
        mmPerUnit: 25.4 / 72,
        from: pdf.numPages > 1 ? `page ${number} of ${pdf.numPages}` : 'the page of the file',
        sure: true,
        others: [],
      },
      notes: notes.list(),
      pageCount: pdf.numPages,
    };
  });
}
