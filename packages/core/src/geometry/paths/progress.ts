/** Is told how much of a work is done, from 0 to 1, more each time. */
export type Progress = (share: number) => void;

/** Tells of a part of a work, from one share to another, as of all of it. */
export function partOf(progress: Progress | undefined, from: number, to: number): Progress | undefined {
  return progress && ((share) => progress(from + share * (to - from)));
}

/** Counts a work off, but for its end, which is said by who does it. @returns to be called with how much more of `total` is done */
export function counting(progress: Progress | undefined, total: number): (more: number) => void {
  if (!progress) return () => undefined;
  let [done, told] = [0, 0];
  return (more) => {
    done += more;
    const share = done / total;
    if (share - told < 0.01 || share >= 1) return;
    told = share;
    progress(share);
  };
}
