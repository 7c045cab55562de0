// The numbers that a calibration is judged by.

/** Ranks from 1; equal values share the mean of theirs. */
function ranks(values: readonly number[]): number[] {
  const order = values.map((_, i) => i).sort((a, b) => values[a]! - values[b]!);
  const result = new Array<number>(values.length);
  for (let from = 0; from < order.length;) {
    let to = from + 1;
    while (to < order.length && values[order[to]!] === values[order[from]!]) to++;
    for (let i = from; i < to; i++) result[order[i]!] = (from + to + 1) / 2;
    from = to;
  }
  return result;
}

/** Spearman's rank correlation: Pearson's of the ranks. */
export function spearman(a: readonly number[], b: readonly number[]): number {
  const [x, y] = [ranks(a), ranks(b)];
  const mean = (a.length + 1) / 2;
  let both = 0;
  let ofX = 0;
  let ofY = 0;
  x.forEach((rank, i) => {
    both += (rank - mean) * (y[i]! - mean);
    ofX += (rank - mean) ** 2;
    ofY += (y[i]! - mean) ** 2;
  });
  return both / Math.sqrt(ofX * ofY);
}

/** Root mean square of the natural log of a ÷ b: 0.1 is about 10 % off. */
export const logError = (a: readonly number[], b: readonly number[]): number =>
  Math.sqrt(a.reduce((sum, value, i) => sum + Math.log(value / b[i]!) ** 2, 0) / a.length);

/** Of positive numbers: what ratios are averaged by. */
export const geometricMean = (values: readonly number[]): number =>
  Math.exp(values.reduce((sum, value) => sum + Math.log(value), 0) / values.length);

/** Coefficients b with the least Σ (y − X·b)², by Gaussian elimination of the normal equations with pivots. */
export function leastSquares(rows: readonly (readonly number[])[], y: readonly number[]): number[] {
  const n = rows[0]!.length;
  const system = Array.from({ length: n }, (_, i) =>
    Array.from({ length: n + 1 }, (__, j) =>
      rows.reduce((sum, row, k) => sum + row[i]! * (j < n ? row[j]! : y[k]!), 0),
    ),
  );
  for (let i = 0; i < n; i++) {
    let pivot = i;
    for (let r = i + 1; r < n; r++) if (Math.abs(system[r]![i]!) > Math.abs(system[pivot]![i]!)) pivot = r;
    [system[i], system[pivot]] = [system[pivot]!, system[i]!];
    for (let r = 0; r < n; r++) {
      if (r === i) continue;
      const factor = system[r]![i]! / system[i]![i]!;
      for (let c = i; c <= n; c++) system[r]![c]! -= factor * system[i]![c]!;
    }
  }
  return system.map((row, i) => row[n]! / row[i]!);
}
