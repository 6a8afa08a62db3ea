/**
 * The level half way between what is dark and what is light. The two are parted where the variance between them is
 * greatest (Otsu, 1979); edges lie where pixels are half of each.
 *
 * @param levels from 0 for black to 255 for white
 * @returns a level between 0 and 255; 127.5 where all is alike
 */
export function evenLevel(levels: Float32Array): number {
  const counts = new Float64Array(256);
  for (let i = 0; i < levels.length; i++) counts[Math.min(255, Math.max(0, Math.round(levels[i])))]++;
  let whole = 0;
  for (let level = 0; level < 256; level++) whole += level * counts[level];
  let [below, sum, best, found] = [0, 0, 0, 127.5];
  for (let level = 0; level < 255; level++) {
    below += counts[level];
    sum += level * counts[level];
    const above = levels.length - below;
    if (below === 0 || above === 0) continue;
    const [dark, light] = [sum / below, (whole - sum) / above];
    const between = below * above * (dark - light) ** 2;
    if (between <= best) continue;
    best = between;
    found = (dark + light) / 2;
  }
  return found;
}
