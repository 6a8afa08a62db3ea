import { type Item, polylinesOf } from '../document/item.ts';
import type { LayerBurning } from '../document/layer.ts';
import { type Polyline, signedArea } from '../geometry/paths/flatten.ts';
import { type Progress, partOf } from '../geometry/paths/progress.ts';
import { nestComponents, nestOutlines, polylineBounds } from '../geometry/questions/nesting.ts';
import type { LayerSettings } from '../settings/settings.ts';
import { cornerNodes } from './corner-nodes.ts';
import { Move, type MoveList } from './moves.ts';
import { findRoute, type Leg, type RouteLine } from './route.ts';
import { edgeParts, type Gap, isInGap, lengthsAlong } from './tabs.ts';

/** A line to burn, and what it is of. */
export interface BurnLine {
  readonly item: Item;
  readonly line: Polyline;
  /** Which of its item's lines it is, or is the path of the beam along. */
  readonly nth: number;
  /** Where its item stands in the drawing, from back to front. */
  readonly place: number;
  /** The node that the operator chose for it to start at; null where none was. */
  readonly start: number | null;
  /** Where tabs keep it unlit; none where nothing is said. */
  readonly gaps?: readonly Gap[];
}

/** Of what burns over less than this, in mm, nothing is seen. */
const leastLitMm = 0.01;

type How = Pick<LayerBurning, 'order' | 'direction' | 'start'>;

/** What decides how a step's lines are burnt. */
export interface LineBurning extends How {
  /** What of the step's settings says how a line is burnt. */
  readonly settings: Pick<LayerSettings, 'passes' | 'focusMm' | 'focusStepMm' | 'pierceS' | 'cornerWaitS' | 'kerfMm'>;
  /** Items in the order they were numbered by hand. */
  readonly numbered: readonly string[];
}

/**
 * Burns lines in the order their layer asks for; `byDepth` gives them by how deep they lie in others, the outermost
 * first. Each is burnt `passes` times before the head goes on.
 *
 * @param progress is told how much is done, from 0 to 1
 * @returns the lines in the order they were burnt
 */
export function burnLines(
  list: MoveList,
  byDepth: readonly (readonly BurnLine[])[],
  how: LineBurning,
  progress?: Progress,
): BurnLine[] {
  const groups = byDepth.map((group) => group.filter(({ line }) => line.points.length >= 4));
  for (const { line } of byDepth.flat()) if (line.points.length < 4) list.missed.push(polylineBounds(line));
  const all = groups.toReversed().flat();
  const done: BurnLine[] = [];
  const burn = (lines: readonly BurnLine[], legs: readonly Leg[]) => {
    for (const { index, node } of legs) {
      burnLine(list, lines[index], node, how);
      list.endLine();
      done.push(lines[index]);
    }
    progress?.(done.length / all.length);
  };
  const seek = (lines: readonly BurnLine[]) => {
    const [from, to] = [done.length / all.length, (done.length + lines.length) / all.length];
    return findRoute(routed(lines, how), list, endsElsewhere(how), 1, partOf(progress, from, to));
  };
  const route = (lines: readonly BurnLine[]) => burn(lines, seek(lines));
  const inTurn = (lines: readonly BurnLine[]) => {
    for (const line of lines) route([line]);
  };
  switch (how.order) {
    case 'inside-first':
      for (const group of groups.toReversed()) route(group);
      break;
    case 'spread':
      for (const group of groups.toReversed()) burn(group, spreadOut(seek(group)));
      break;
    case 'nearest':
      burnNearest(all, route);
      break;
    case 'parts':
    case 'rows':
      burnParts(all, route, (roots) => (how.order === 'rows' ? inRows(roots) : routeOrder(roots, how, list)));
      break;
    case 'as-drawn':
      inTurn(asDrawn(all));
      break;
    case 'by-hand':
      inTurn(byHand(all, how.numbered));
      break;
  }
  return done;
}

/** Whether an open line is left at its other end. */
function endsElsewhere({ settings }: LineBurning): boolean {
  return settings.passes % 2 === 1;
}

function routed(lines: readonly BurnLine[], how: LineBurning): RouteLine[] {
  return lines.map((burnt) => {
    const { line, start: chosen } = burnt;
    if (!line.closed) return { line, entries: null };
    if (chosen !== null) return { line, entries: [chosen] };
    return { line, entries: how.start === 'corner' ? cornersOf(burnt, how) : null };
  });
}

/** The nodes at which an outline turns sharply; null where it has none. */
function cornersOf(
  { item, nth, line }: BurnLine,
  { settings }: Pick<LineBurning, 'settings'>,
): readonly number[] | null {
  const corners = cornerNodes(item, nth, line, settings.kerfMm / 2);
  return corners.length > 0 ? corners : null;
}

/**
 * A route gone through in strides, so that neighbours on it burn long after each other: every so many, then those after
 * them, and so on. With strides as many as steps, the way between is the shortest that does.
 */
function spreadOut(legs: readonly Leg[]): Leg[] {
  const stride = Math.ceil(Math.sqrt(legs.length));
  return Array.from({ length: stride }, (_, first) => legs.filter((_leg, i) => i % stride === first)).flat();
}

/** The nearest next, of those whose contents are done. */
function burnNearest(lines: readonly BurnLine[], route: (lines: readonly BurnLine[]) => void): void {
  const { holders } = nestOutlines(lines.map(({ line }) => line));
  const inside = new Int32Array(lines.length);
  for (const held of holders) for (const holder of held) inside[holder]++;
  const waiting = new Set(lines.keys());
  while (waiting.size > 0) {
    // All that are free go in one route; what they set free goes in the next.
    const free = [...waiting].filter((i) => inside[i] === 0);
    route(free.map((i) => lines[i]));
    for (const i of free) {
      waiting.delete(i);
      for (const holder of holders[i]) inside[holder]--;
    }
  }
}

/** Part by part: what lies in an outermost outline, the innermost first, then the outline itself. */
function burnParts(
  lines: readonly BurnLine[],
  route: (lines: readonly BurnLine[]) => void,
  inOrder: (roots: readonly BurnLine[]) => readonly BurnLine[],
): void {
  const nesting = nestOutlines(lines.map(({ line }) => line));
  const parts = new Map<BurnLine, BurnLine[][]>();
  for (const family of nestComponents(nesting)) {
    const byDepth: BurnLine[][] = [];
    for (const i of family) byDepth[nesting.depths[i]] = [...(byDepth[nesting.depths[i]] ?? []), lines[i]];
    const [root] = byDepth.find((group) => group) ?? [];
    if (root) parts.set(root, byDepth);
  }
  for (const root of inOrder([...parts.keys()])) {
    for (const group of (parts.get(root) ?? []).toReversed()) if (group) route(group);
  }
}

function routeOrder(roots: readonly BurnLine[], how: LineBurning, list: MoveList): BurnLine[] {
  return findRoute(routed(roots, how), list, endsElsewhere(how)).map(({ index }) => roots[index]);
}

/** In rows from the top, to the right and back: rows are lines whose middles stand no further apart than half their height. */
function inRows(lines: readonly BurnLine[]): BurnLine[] {
  const placed = lines
    .map((entry) => {
      const { minX, minY, maxX, maxY } = polylineBounds(entry.line);
      return { one: entry, x: (minX + maxX) / 2, y: (minY + maxY) / 2, height: maxY - minY };
    })
    .sort((a, b) => a.y - b.y);
  const rows: (typeof placed)[] = [];
  for (const line of placed) {
    const row = rows[rows.length - 1];
    if (row && line.y - row[0].y <= Math.max(row[0].height, line.height) / 2 + 1e-9) row.push(line);
    else rows.push([line]);
  }
  return rows.flatMap((row, i) => row.sort((a, b) => (i % 2 === 0 ? a.x - b.x : b.x - a.x)).map(({ one }) => one));
}

/** In the order of the drawing; of one item, what lies inside first, as the lines are given. */
function asDrawn(lines: readonly BurnLine[]): BurnLine[] {
  return lines.toSorted((a, b) => a.place - b.place);
}

/** By the numbers the operator gave; what has none burns last, as drawn. */
function byHand(lines: readonly BurnLine[], numbered: readonly string[]): BurnLine[] {
  const number = new Map(numbered.map((id, i) => [id, i]));
  const rankOf = ({ item }: BurnLine) => number.get(item.id) ?? numbered.length;
  return asDrawn(lines).toSorted((a, b) => rankOf(a) - rankOf(b));
}

/**
 * Burns a line from a node on: an open one there and back, a closed one round and round, each time as much deeper in
 * focus as is asked. The beam stands where it starts, the first time, and at each sharp corner, as long as is asked.
 * Over tabs the head goes on unlit, and the beam stands again behind them.
 */
function burnLine(list: MoveList, burnt: BurnLine, start: number, how: LineBurning): void {
  const { settings, direction } = how;
  const { points, closed } = burnt.line;
  const { passes, focusMm, focusStepMm, pierceS, cornerWaitS } = settings;
  const nodes = points.length / 2;
  const corners = cornerWaitS > 0 ? new Set(cornersOf(burnt, how)) : null;
  const tabs = tabWalk(burnt);
  const litBefore = list.litMm;
  list.to(Move.travel, points[start * 2], points[start * 2 + 1]);
  // On the screen, y down, a positive area turns clockwise.
  const forwards = direction === 'either' || signedArea(burnt.line) > 0 === (direction === 'clockwise');
  for (let pass = 0; pass < passes; pass++) {
    list.focus(focusMm - pass * focusStepMm);
    if (pass === 0 && !tabs?.holds(start)) list.wait(pierceS);
    const forth = closed ? forwards : (start === 0) === (pass % 2 === 0);
    const steps = closed ? nodes : nodes - 1;
    for (let step = 1; step <= steps; step++) {
      const node = closed
        ? (((start + (forth ? step : -step)) % nodes) + nodes) % nodes
        : forth
          ? step
          : nodes - 1 - step;
      if (tabs) tabs.burnTo(list, node, forth, pierceS);
      else list.to(Move.lit, points[node * 2], points[node * 2 + 1]);
      if (step < steps && corners?.has(node) && !tabs?.holds(node)) list.wait(cornerWaitS);
    }
  }
  if (list.litMm - litBefore < leastLitMm)
    list.missed.push(polylineBounds(polylinesOf(burnt.item)[burnt.nth] ?? burnt.line));
}

/** How a closed line with tabs is burnt edge by edge; null for one without. */
function tabWalk({ line: { points }, line, gaps = [] }: BurnLine) {
  if (gaps.length === 0) return null;
  const along = lengthsAlong(line);
  const nodes = points.length / 2;
  const total = along[nodes];
  let isLit = true;
  return {
    /** Whether a node lies in a tab. */
    holds: (node: number) => isInGap(gaps, along[node], total),
    /** Burns the edge that ends in a node. */
    burnTo(list: MoveList, node: number, forth: boolean, pierceS: number): void {
      const from = forth ? (node + nodes - 1) % nodes : (node + 1) % nodes;
      const [start, end] = forth ? [along[from], along[from + 1]] : [along[node + 1], along[node]];
      const [x, y] = [points[2 * from], points[2 * from + 1]];
      const [dx, dy] = [points[2 * node] - x, points[2 * node + 1] - y];
      for (const part of edgeParts(gaps, total, start, end)) {
        if (part.isLit && !isLit) list.wait(pierceS);
        isLit = part.isLit;
        list.to(isLit ? Move.lit : Move.dark, x + part.to * dx, y + part.to * dy);
      }
    },
  };
}
