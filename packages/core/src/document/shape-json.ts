import type { Combining } from '../geometry/areas/combine.ts';
import type { BorderSettings, HangingLoop } from '../geometry/offsets/border.ts';
import type { OffsetSettings } from '../geometry/offsets/offset.ts';
import type { Corner } from '../geometry/paths/corners.ts';
import type { Matrix } from '../geometry/paths/matrix.ts';
import { coordsOf, type Path } from '../geometry/paths/path.ts';
import { asList, asNumber, asNumbers, asRecord, asText, asTextOrNull, NotADrawing, oneOf } from './json-parts.ts';
import type { CombinedPart, Shape, TextSetting } from './shapes.ts';
import { type BoltTie, boltRooms, type FitTie, fitNames, type PartTie, partRoles, type ThicknessTie } from './ties.ts';

interface PathJson {
  readonly verbs: string;
  readonly coords: number[];
}

type TextJson = Omit<TextSetting, 'along'> & { readonly along?: PathJson };

type Plain = Exclude<Shape, { kind: 'path' | 'text' | 'combined' | 'offset' | 'border' | 'picture' }>;

/** A shape as plain JSON: the same but for paths, whose verbs are a string such as `MLCZ`. */
export type ShapeJson =
  | Plain
  | ({ kind: 'path'; corners?: readonly Corner[] } & PathJson)
  | ({ kind: 'text'; text: TextJson } & PathJson)
  | (Omit<Extract<Shape, { kind: 'picture' }>, 'visible'> & { visible?: PathJson })
  | ({ kind: 'offset'; sources: readonly string[]; settings: OffsetSettings; meets?: PartTie; stale?: true } & PathJson)
  | ({ kind: 'border'; sources: readonly string[]; settings: BorderSettings; stale?: true } & PathJson)
  | { kind: 'combined'; how: Combining; parts: (Omit<CombinedPart, 'shape'> & { shape: ShapeJson })[] };

const letters = 'MLCZ';

export function shapeToJson(shape: Shape): ShapeJson {
  switch (shape.kind) {
    case 'path':
      return { kind: 'path', ...pathToJson(shape.path), ...(shape.corners ? { corners: shape.corners } : {}) };
    case 'text':
      return { kind: 'text', text: textToJson(shape.text), ...pathToJson(shape.path) };
    case 'offset': {
      const { path, ...offset } = shape;
      return { ...offset, ...pathToJson(path) };
    }
    case 'picture': {
      const { visible, ...picture } = shape;
      return visible ? { ...picture, visible: pathToJson(visible) } : picture;
    }
    case 'border': {
      const { path, ...border } = shape;
      return { ...border, ...pathToJson(path) };
    }
    case 'combined':
      return { ...shape, parts: shape.parts.map((part) => ({ ...part, shape: shapeToJson(part.shape) })) };
    default:
      return shape;
  }
}

function textToJson({ along, ...text }: TextSetting): TextJson {
  return along ? { ...text, along: pathToJson(along) } : text;
}

/** Whether two shapes are the same in every number. */
export function sameShape(a: Shape, b: Shape): boolean {
  return a === b || inOrder(shapeToJson(a)) === inOrder(shapeToJson(b));
}

/** JSON that is the same whatever order the names were put in. */
function inOrder(json: unknown): string {
  return JSON.stringify(json, (_, value: unknown) => {
    if (typeof value !== 'object' || value === null || Array.isArray(value)) return value;
    return Object.fromEntries(Object.entries(value).sort(([p], [q]) => (p < q ? -1 : 1)));
  });
}

function pathToJson({ verbs, coords }: Path): PathJson {
  return { verbs: Array.from(verbs, (verb) => letters[verb]).join(''), coords: Array.from(coords) };
}

const combinings = ['unite', 'subtract', 'intersect', 'exclude'] as const;
const aligns = ['left', 'centre', 'right'] as const;
/** No arc goes round more often than ten times, in degrees. */
const mostTurned = 3600;
/** Combinations hold combinations; not deeper than this. */
const deepest = 60;

/** @throws NotADrawing naming what is wrong */
export function shapeFromJson(json: unknown, where: string, depth = 0): Shape {
  const shape = asRecord(json, `${where}: shape`);
  const number = (name: string) => asNumber(shape[name], `${where}: ${name}`);
  const numbers = <K extends string>(...names: K[]) =>
    Object.fromEntries(names.map((name) => [name, number(name)])) as Record<K, number>;
  switch (shape.kind) {
    case 'rectangle': {
      const corners = shape.corners === undefined ? null : asNumbers(shape.corners, `${where}: corners`);
      if (corners && corners.length !== 4) throw new NotADrawing(`${where}: corners must be 4 numbers`);
      return {
        kind: 'rectangle',
        ...numbers('x', 'y', 'width', 'height', 'rx', 'ry'),
        ...(corners ? { corners: corners as unknown as [number, number, number, number] } : {}),
        ...tiedFromJson(shape.tied, where),
      };
    }
    case 'ellipse':
      return { kind: 'ellipse', ...numbers('cx', 'cy', 'rx', 'ry'), ...boltFromJson(shape.bolt, where) };
    case 'slot':
      return { kind: 'slot', ...numbers('x1', 'y1', 'x2', 'y2', 'width'), ...tiedFromJson(shape.tied, where) };
    case 'polygon': {
      const sides = number('sides');
      if (!(Number.isInteger(sides) && sides >= 3 && sides <= 1000)) {
        throw new NotADrawing(`${where}: sides must be a whole number from 3 to 1000`);
      }
      const inner = shape.inner === null ? null : number('inner');
      return { kind: 'polygon', ...numbers('cx', 'cy', 'radius', 'turn'), sides, inner };
    }
    case 'arc':
      return {
        kind: 'arc',
        ...numbers('cx', 'cy', 'radius', 'from'),
        sweep: asNumber(shape.sweep, `${where}: sweep`, -mostTurned, mostTurned),
      };
    case 'picture':
      return {
        kind: 'picture',
        pictureId: asText(shape.pictureId, `${where}: pictureId`),
        ...numbers('width', 'height'),
        ...(shape.visible === undefined
          ? {}
          : { visible: pathFromJson(asRecord(shape.visible, `${where}: visible`), `${where}: visible`) }),
      };
    case 'path': {
      const corners = shape.corners === undefined ? [] : asList(shape.corners, `${where}: corners`);
      return {
        kind: 'path',
        path: pathFromJson(shape, where),
        ...(corners.length > 0 ? { corners: corners.map((corner) => cornerFromJson(corner, `${where}: corner`)) } : {}),
      };
    }
    case 'text':
      return { kind: 'text', text: textFromJson(shape.text, `${where}: text`), path: pathFromJson(shape, where) };
    case 'border':
      return {
        kind: 'border',
        sources: sourcesFromJson(shape.sources, where),
        settings: borderFromJson(shape.settings, `${where}: settings`),
        ...(shape.stale === true ? { stale: true } : {}),
        path: pathFromJson(shape, where),
      };
    case 'offset':
      return {
        kind: 'offset',
        sources: sourcesFromJson(shape.sources, where),
        settings: offsetFromJson(shape.settings, `${where}: settings`),
        ...(shape.stale === true ? { stale: true } : {}),
        ...(shape.meets === undefined ? {} : { meets: meetsFromJson(shape.meets, `${where}: meets`) }),
        path: pathFromJson(shape, where),
      };
    case 'combined': {
      if (depth > deepest) throw new NotADrawing(`${where}: combinations are too deep`);
      const how = combinings.find((known) => known === shape.how);
      if (!how) throw new NotADrawing(`${where}: how must be ${combinings.join(', ')}`);
      const parts = asList(shape.parts, `${where}: parts`);
      return { kind: 'combined', how, parts: parts.map((part, i) => partFromJson(part, `${where}, part ${i}`, depth)) };
    }
    default:
      throw new NotADrawing(`${where}: “${String(shape.kind)}” is not a kind of shape`);
  }
}

function partFromJson(json: unknown, where: string, depth: number): CombinedPart {
  const { name, shape, matrix, rule } = asRecord(json, where);
  const map = asNumbers(matrix, `${where}: matrix`);
  if (map.length !== 6) throw new NotADrawing(`${where}: matrix must be 6 numbers`);
  return {
    name: asTextOrNull(name, `${where}: name`),
    shape: shapeFromJson(shape, where, depth + 1),
    matrix: map as unknown as Matrix,
    rule: rule === 'evenodd' ? 'evenodd' : 'nonzero',
  };
}

function offsetFromJson(json: unknown, where: string): OffsetSettings {
  const settings = asRecord(json, where);
  const known = <T extends string>(name: string, values: readonly T[]): T =>
    oneOf(settings[name], values, `${where}: ${name}`);
  return {
    by: asNumber(settings.by, `${where}: by`),
    join: known('join', ['round', 'miter', 'bevel']),
    miterLimit: asNumber(settings.miterLimit, `${where}: miterLimit`),
    cap: known('cap', ['round', 'flat', 'square']),
    ignoreHoles: settings.ignoreHoles === true,
    side: known('side', ['both', 'right', 'left']),
  };
}

function sourcesFromJson(json: unknown, where: string): string[] {
  return asList(json, `${where}: sources`).map((id) => asText(id, `${where}: source`));
}

function fitFromJson(tie: Record<string, unknown>, where: string): FitTie {
  return {
    fit: oneOf(tie.fit, fitNames, `${where}: fit`),
    clearanceMm: asNumber(tie.clearanceMm, `${where}: clearanceMm`),
  };
}

function tiedFromJson(json: unknown, where: string): { tied?: ThicknessTie } {
  if (json === undefined) return {};
  const tie = asRecord(json, `${where}: tied`);
  return {
    tied: { ...fitFromJson(tie, `${where}: tied`), side: oneOf(tie.side, ['width', 'height'], `${where}: side`) },
  };
}

function meetsFromJson(json: unknown, where: string): PartTie {
  const tie = asRecord(json, where);
  return { ...fitFromJson(tie, where), role: oneOf(tie.role, partRoles, `${where}: role`) };
}

function boltFromJson(json: unknown, where: string): { bolt?: BoltTie } {
  if (json === undefined) return {};
  const { size, room } = asRecord(json, `${where}: bolt`);
  return { bolt: { size: asText(size, `${where}: bolt size`), room: oneOf(room, boltRooms, `${where}: bolt room`) } };
}

function borderFromJson(json: unknown, where: string): BorderSettings {
  const { loop, ...settings } = asRecord(json, where);
  const number = (name: string) => asNumber(settings[name], `${where}: ${name}`);
  return {
    by: number('by'),
    bridgeGap: number('bridgeGap'),
    bridgeWidth: number('bridgeWidth'),
    inletWidth: number('inletWidth'),
    innerRadius: number('innerRadius'),
    loop: loop === null ? null : loopFromJson(loop, `${where}: loop`),
  };
}

function loopFromJson(json: unknown, where: string): HangingLoop {
  const loop = asRecord(json, where);
  const number = (name: string) => asNumber(loop[name], `${where}: ${name}`);
  return { u: number('u'), v: number('v'), holeMm: number('holeMm'), rimMm: number('rimMm') };
}

function cornerFromJson(json: unknown, where: string): Corner {
  const { x, y, kind, size } = asRecord(json, where);
  if (kind !== 'round' && kind !== 'cut') throw new NotADrawing(`${where}: kind must be round or cut`);
  return { x: asNumber(x, `${where}: x`), y: asNumber(y, `${where}: y`), kind, size: asNumber(size, `${where}: size`) };
}

function textFromJson(json: unknown, where: string): TextSetting {
  const text = asRecord(json, where);
  const align = aligns.find((known) => known === text.align);
  if (!align) throw new NotADrawing(`${where}: align must be ${aligns.join(', ')}`);
  return {
    words: asText(text.words, `${where}: words`),
    family: asText(text.family, `${where}: family`),
    bold: text.bold === true,
    italic: text.italic === true,
    height: asNumber(text.height, `${where}: height`),
    align,
    spacing: asNumber(text.spacing, `${where}: spacing`),
    leading: asNumber(text.leading, `${where}: leading`),
    width: text.width === null ? null : asNumber(text.width, `${where}: width`),
    ...(text.along === undefined
      ? {}
      : { along: pathFromJson(asRecord(text.along, `${where}: along`), `${where}: along`) }),
  };
}

function pathFromJson(shape: Record<string, unknown>, where: string): Path {
  const coords = Float64Array.from(asNumbers(shape.coords, `${where}: coords`));
  const text = asText(shape.verbs, `${where}: verbs`);
  const verbs = Uint8Array.from(text, (letter) => letters.indexOf(letter));
  let needed = 0;
  for (const verb of verbs) {
    if (verb > 3) throw new NotADrawing(`${where}: verbs may be M, L, C and Z`);
    needed += coordsOf[verb as 0 | 1 | 2 | 3];
  }
  if (needed !== coords.length || (verbs.length > 0 && verbs[0] !== 0)) {
    throw new NotADrawing(`${where}: verbs and coords do not go together`);
  }
  return { verbs, coords };
}
