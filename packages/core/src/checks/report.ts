import { extentOf } from '../colours/derive.ts';
import { type NearMissKind, nearMisses } from '../colours/near-miss.ts';
import { boundsOfAll } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { boxHeight, boxWidth, isEmpty } from '../geometry/paths/box.ts';
import { burnsPictures, fillsAreas, isBurnt, type Operation } from '../operations/operations.ts';
import type { BurnPlan } from '../plan/plan.ts';
import type { PreparedJob } from '../plan/prepare.ts';
import type { SettingSource } from '../recipes/in-force/apply.ts';
import type { Grain } from '../settings/grain.ts';
import type { FindingLevel } from './catalogue.ts';
import { burntItems, type Finding } from './finding.ts';

/** Everything a plan says about a file, as plain figures; lengths in mm, times in seconds. */
export interface Report {
  source: ReportSource;
  /** Of all that burns; null when nothing does. */
  bounds: { x: number; y: number; width: number; height: number } | null;
  paints: {
    stroke: string | null;
    strokeWidthMm: number | null;
    fill: string | null;
    items: number;
    layer: string | null;
  }[];
  /** Paints that are nearly one that means something. */
  nearMisses: {
    kind: NearMissKind;
    stroke: string | null;
    fill: string | null;
    /** The colour it is taken to be meant as, the layer of that, and how far off it is (CIEDE2000). */
    meant: string;
    layer: string;
    distance: number;
    items: number;
  }[];
  layers: {
    name: string;
    /** What its items lie on; of several materials, a layer stands here once for each. */
    material: string | null;
    operation: Operation;
    items: number;
    /** The layer's outlines, each once. */
    lengthMm: number;
    /** What they enclose, holes left out. */
    areaMm2: number;
    powerPercent: number | null;
    speedMmPerS: number | null;
    passes: number | null;
    /** How far apart the lines of what is filled are, in mm; and how greys are made, of what burns by them. */
    lineSpacingMm: number | null;
    grain: Grain | null;
    /** Where power and speed come from, and between which speeds (mm/s) the right one is where they are worked out. */
    source: { kind: string; from: string | null; doubt: { least: number; most: number } | null } | null;
    timeS: number;
  }[];
  /** How far the head moves unlit. */
  travelMm: number;
  timeS: number;
  /** `accepted`: why the operator accepts it; null where that is not so. */
  findings: { code: string; level: FindingLevel; message: string; items: number; accepted: string | null }[];
}

export interface ReportSource {
  file: string;
  format: string;
  declaredWidthMm: number | null;
  declaredHeightMm: number | null;
  itemCount: number;
  /** What was not taken as drawn, and how often. */
  warnings: { code: string; message: string; count: number }[];
}

/** What a report says of a stored job: where it was drawn is not known any more. @param name the file, or the job's title */
export function jobSource(name: string, { drawing }: Pick<JobDocument, 'drawing'>): ReportSource {
  const itemCount = drawing.items.filter(({ hidden }) => !hidden).length;
  return { file: name, format: 'job', declaredWidthMm: null, declaredHeightMm: null, itemCount, warnings: [] };
}

/** All that is known of a planned job, in plain numbers: lengths in mm, times in s. */
export function reportOf(
  source: ReportSource,
  prepared: PreparedJob,
  plan: BurnPlan,
  findings: readonly Finding[],
): Report {
  const box = boundsOfAll(burntItems(prepared));
  const { meaning } = prepared;
  const names = new Map(meaning.layers.map((layer) => [layer.id, layer.name]));
  return {
    source,
    bounds: isEmpty(box)
      ? null
      : { x: rounded(box.minX), y: rounded(box.minY), width: rounded(boxWidth(box)), height: rounded(boxHeight(box)) },
    paints: meaning.paints.map((use) => ({
      stroke: use.part === 'stroke' ? use.colour : null,
      strokeWidthMm: use.widthMm,
      fill: use.part === 'fill' ? use.colour : null,
      items: use.itemIds.length,
      layer: use.layerId === null ? null : (names.get(use.layerId) ?? null),
    })),
    nearMisses: nearMisses(meaning.paints, prepared.key).map(({ paint, kind, meant, layerId, distance }) => ({
      kind,
      stroke: paint.part === 'stroke' ? paint.colour : null,
      fill: paint.part === 'fill' ? paint.colour : null,
      meant,
      layer: names.get(layerId) ?? layerId,
      distance: rounded(distance),
      items: paint.itemIds.length,
    })),
    layers: prepared.layers.flatMap(({ id, layer, material, placed, applied }) => {
      if (placed.length === 0) return [];
      const { lengthMm, areaMm2 } = extentOf(placed.map(({ item }) => item));
      const settings = isBurnt(layer.operation) ? applied.settings : null;
      return [
        {
          name: layer.name,
          material: material?.name ?? null,
          operation: layer.operation,
          items: placed.length,
          lengthMm: rounded(lengthMm),
          areaMm2: rounded(areaMm2),
          powerPercent: settings?.powerPercent ?? null,
          speedMmPerS: settings?.speedMmPerS ?? null,
          passes: settings?.passes ?? null,
          lineSpacingMm: settings && fillsAreas(layer.operation) ? settings.lineSpacingMm : null,
          grain: settings && burnsPictures(layer.operation) ? settings.grain : null,
          source: settings && sourceOf(applied.sources.speedMmPerS),
          timeS: rounded(
            plan.steps.filter((step) => step.preparedId === id).reduce((sum, step) => sum + step.timeS, 0),
          ),
        },
      ];
    }),
    travelMm: rounded(plan.travelMm),
    timeS: rounded(plan.timeS),
    findings: findings.map(({ code, level, message, itemIds, accepted = null }) => ({
      code,
      level,
      message,
      items: itemIds.length,
      accepted,
    })),
  };
}

function sourceOf(source: SettingSource | undefined): Report['layers'][number]['source'] {
  if (!source) return null;
  const isFromBook = source.kind === 'recipe' || source.kind === 'worked out';
  return {
    kind: source.kind === 'recipe' ? source.evidence : source.kind,
    from: isFromBook ? source.from : null,
    doubt: source.kind === 'worked out' ? source.doubt : null,
  };
}

function rounded(value: number): number {
  return Math.round(value * 1e4) / 1e4;
}
