/** A square matrix of zeros. */
export function zeroMatrix(size: number): number[][] {
  return Array.from({ length: size }, () => new Array<number>(size).fill(0));
}

/** Solves a small system whose matrix is symmetric and positive definite, by elimination. */
export function solveSystem(matrix: readonly (readonly number[])[], right: readonly number[]): number[] {
  const rows = matrix.map((line, i) => [...line, right[i]]);
  const size = right.length;
  for (let i = 0; i < size; i++) {
    for (let j = i + 1; j < size; j++) {
      const share = rows[j][i] / rows[i][i];
      for (let k = i; k <= size; k++) rows[j][k] -= share * rows[i][k];
    }
  }
  const out = new Array<number>(size).fill(0);
  for (let i = size - 1; i >= 0; i--) {
    const known = out.reduce((sum, value, k) => (k > i ? sum + rows[i][k] * value : sum), 0);
    out[i] = (rows[i][size] - known) / rows[i][i];
  }
  return out;
}
