import { asColour, asList, asNumber, asRecord, asText, NotADrawing, readBy } from '../document/json-parts.ts';
import { layerSchema } from '../document/layer.ts';
import type { ColourKey, Rule } from './key.ts';

/** Says what in a file is not a colour key. */
export class NotAKey extends Error {
  override readonly name = 'NotAKey';
}

const most = 500;

/** A colour key as a file others can read. */
export function keyToJson(key: ColourKey): string {
  return `${JSON.stringify({ kind: 'lambent colour key', ...key }, null, 2)}\n`;
}

/**
 * Builds a key from JSON, checking all of it.
 * @throws NotAKey with one sentence that names the place
 */
export function keyFromJson(json: unknown): ColourKey {
  try {
    const record = asRecord(json, 'The colour key');
    const name = asText(record.name, 'its name').trim();
    if (name === '' || name.length > 120) throw new NotADrawing('its name must have 1 to 120 characters');
    const layers = asList(record.layers, 'its layers').map((layer, i) => readBy(layerSchema, layer, `layer ${i + 1}`));
    const ids = new Set(layers.map(({ id }) => id));
    if (ids.size !== layers.length) throw new NotADrawing('two of its layers have one id');
    const rules = asList(record.rules, 'its rules').map((rule, i) => ruleFromJson(rule, ids, `rule ${i + 1}`));
    if (rules.length > most || layers.length > most)
      throw new NotADrawing(`it may have ${most} rules and layers at most`);
    const hairline =
      record.hairlineMm === undefined || record.hairlineMm === null ? null : asNumber(record.hairlineMm, 'hairlineMm');
    return {
      id: asText(record.id, 'its id'),
      name,
      layers,
      rules,
      ...(hairline === null ? {} : { hairlineMm: hairline }),
    };
  } catch (error) {
    if (error instanceof NotADrawing) throw new NotAKey(`This is not a colour key: ${error.message}.`);
    throw error;
  }
}

/** Reads a key from the text of a file. @throws NotAKey */
export function keyFromText(text: string): ColourKey {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    throw new NotAKey(
      'This is not a colour key: the file holds no JSON. Choose a file that was saved from the Colour keys.',
    );
  }
  return keyFromJson(json);
}

function ruleFromJson(json: unknown, layers: ReadonlySet<string>, where: string): Rule {
  const rule = asRecord(json, where);
  if (rule.part !== 'stroke' && rule.part !== 'fill') throw new NotADrawing(`${where}: part must be stroke or fill`);
  const width = (name: 'minWidthMm' | 'maxWidthMm') =>
    rule[name] === null || rule[name] === undefined ? null : asNumber(rule[name], `${where}: ${name}`);
  const tolerance = asNumber(rule.tolerance, `${where}: tolerance`);
  if (!(tolerance >= 0 && tolerance <= 100)) throw new NotADrawing(`${where}: tolerance must lie between 0 and 100`);
  const layerId = asText(rule.layerId, `${where}: layerId`);
  if (!layers.has(layerId)) throw new NotADrawing(`${where}: the key has no layer “${layerId}”`);
  const [min, max] = [width('minWidthMm'), width('maxWidthMm')];
  if (min !== null && max !== null && min > max)
    throw new NotADrawing(`${where}: the least width is more than the most`);
  return {
    part: rule.part,
    colour: asColour(rule.colour, `${where}: colour`),
    tolerance,
    minWidthMm: min,
    maxWidthMm: max,
    ...(rule.grey ? { grey: greyFromJson(rule.grey, where) } : {}),
    layerId,
  };
}

function greyFromJson(json: unknown, where: string) {
  const grey = asRecord(json, `${where}: grey`);
  const [from, to] = [asNumber(grey.from, `${where}: grey from`), asNumber(grey.to, `${where}: grey to`)];
  if (!(from >= 0 && to <= 100 && from <= to))
    throw new NotADrawing(`${where}: greys go from 0 (black) to 100 (white)`);
  return { from, to };
}
