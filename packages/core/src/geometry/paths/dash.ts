import { type Path, PathBuilder } from './path.ts';
import { addSegment, isLine, pieceOf, pointAt, type Segment, subpathsOf } from './segments.ts';

/** More dashes than this are not made: the pattern is a tone, not a line. */
const mostDashes = 200_000;

/**
 * A path cut into dashes by SVG's rules: `lengths` alternate dash and gap (an odd list is doubled), the
 * pattern starts `offset` in, and starts anew with every subpath. Curves stay curves.
 *
 * @returns null when the pattern draws a solid line or could not be made
 */
export function dashPath(path: Path, lengths: readonly number[], offset: number): Path | null {
  const pattern = lengths.length % 2 ? [...lengths, ...lengths] : lengths;
  const period = pattern.reduce((sum, length) => sum + length, 0);
  if (!(period > 0) || !Number.isFinite(period) || pattern.some((length) => length < 0)) return null;
  const builder = new PathBuilder();
  let dashes = 0;
  for (const { segments } of subpathsOf(path)) {
    let index = 0;
    let left = ((offset % period) + period) % period;
    while (left >= pattern[index]) {
      left -= pattern[index];
      index = (index + 1) % pattern.length;
    }
    left = pattern[index] - left;
    let pen = false;
    for (const segment of segments) {
      const measure = new LengthTable(segment);
      let done = 0;
      while (done < measure.total) {
        const take = Math.min(left, measure.total - done);
        if (index % 2 === 0) {
          if (!pen) {
            if (++dashes > mostDashes) return null;
            const { x, y } = pointAt(segment, measure.tAt(done));
            builder.moveTo(x, y);
            pen = true;
          }
          addSegment(builder, pieceOf(segment, measure.tAt(done), measure.tAt(done + take)));
        }
        done += take;
        left -= take;
        while (left <= 1e-12 * period) {
          index = (index + 1) % pattern.length;
          left += pattern[index];
          if (index % 2 === 1) pen = false;
        }
        if (take === 0 && measure.total - done < 1e-12 * measure.total) break;
      }
    }
  }
  return builder.build();
}

/** Where along a segment a length is reached, from a table of chords. */
class LengthTable {
  private readonly lengths: Float64Array;
  readonly total: number;

  constructor(segment: Segment) {
    const steps = isLine(segment) ? 1 : 256;
    this.lengths = new Float64Array(steps + 1);
    let [px, py] = [segment[0], segment[1]];
    for (let i = 1; i <= steps; i++) {
      const { x, y } = pointAt(segment, i / steps);
      this.lengths[i] = this.lengths[i - 1] + Math.hypot(x - px, y - py);
      [px, py] = [x, y];
    }
    this.total = this.lengths[steps];
  }

  tAt(length: number): number {
    const { lengths } = this;
    const steps = lengths.length - 1;
    if (length <= 0) return 0;
    if (length >= this.total) return 1;
    let [low, high] = [0, steps];
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if (lengths[middle] <= length) low = middle;
      else high = middle;
    }
    return (low + (length - lengths[low]) / (lengths[high] - lengths[low])) / steps;
  }
}
