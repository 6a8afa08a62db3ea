import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import type { Item } from '../document/item.ts';
import type { Accepted, JobDocument } from '../document/job.ts';
import { outlineOf } from '../document/shapes.ts';
import { pathData } from '../geometry/paths/path.ts';
import type { FindingCode } from './catalogue.ts';
import type { Finding } from './finding.ts';

/*
 * Findings that the operator accepts: they stay listed, but nothing is asked any more, until what they are about changes.
 */

/** Findings that are about where things lie, and not only about what they are. */
const aboutPlace: ReadonlySet<FindingCode> = new Set(['into-margin', 'off-sheet', 'on-blocked', 'parked']);

const looks = new WeakMap<Item, string>();

/** What an item is, whatever its place: as few letters as tell it from others. */
function lookOf(item: Item): string {
  const known = looks.get(item);
  if (known !== undefined) return known;
  const { stroke, strokeWidthMm, fill } = item.paint;
  const said = [pathData(outlineOf(item.shape), 4), stroke, strokeWidthMm, fill, item.fillRule, item.pinned, item.also];
  const look = hashOf(said.join(' '));
  looks.set(item, look);
  return look;
}

function hashOf(text: string): string {
  return bytesToHex(sha256(new TextEncoder().encode(text))).slice(0, 20);
}

/** What a finding is about, in as few letters as tell it from others. It changes with what it is said of, and with what it says. */
export function aboutOf({ code, layerId, message, itemIds, about }: Finding, { drawing }: JobDocument): string {
  if (about !== undefined) return hashOf(`${code} ${about}`);
  const wanted = new Set(itemIds);
  const items = drawing.items.filter(({ id }) => wanted.has(id));
  const [, , , , firstX, firstY] = items[0]?.matrix ?? [1, 0, 0, 1, 0, 0];
  const [fromX, fromY] = aboutPlace.has(code) ? [0, 0] : [firstX, firstY];
  const places = items.map((item) => {
    const [a, b, c, d, e, f] = item.matrix;
    const place = [a, b, c, d, e - fromX, f - fromY].map((value) => (Math.round(value * 1e4) / 1e4 || 0).toString());
    return `${lookOf(item)} ${place.join(' ')}`;
  });
  return hashOf([code, layerId ?? '', message, ...places].join('\n'));
}

/** A finding as it is kept once it is accepted. @throws RangeError for one that blocks: that has to be mended */
export function acceptedOf(finding: Finding, job: JobDocument, reason: string): Accepted {
  if (finding.level === 'blocks') throw new RangeError(`acceptedOf: ${finding.code} blocks`);
  return { about: aboutOf(finding, job), code: finding.code, message: finding.message, reason };
}

/** Findings with why they are accepted, where they are. */
export function withAccepted(findings: readonly Finding[], job: JobDocument): Finding[] {
  if (job.accepted.length === 0) return [...findings];
  const codes = new Set(job.accepted.map(({ code }) => code));
  const reasons = new Map(job.accepted.map(({ about, reason }) => [about, reason]));
  return findings.map((finding) => {
    // Only what may be accepted is looked at closely: that takes its time on large drawings.
    if (finding.level === 'blocks' || !codes.has(finding.code)) return finding;
    const reason = reasons.get(aboutOf(finding, job));
    return reason === undefined ? finding : { ...finding, accepted: reason };
  });
}
