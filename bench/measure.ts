/** Median, smallest and largest of some figures. */
export function summary(figures: readonly number[]): {
  median: number;
  least: number;
  most: number;
} {
  const sorted = [...figures].sort((a, b) => a - b);
  return {
    median: sorted[Math.floor(sorted.length / 2)],
    least: sorted[0],
    most: sorted[sorted.length - 1],
  };
}

export function percentile(figures: readonly number[], part: number): number {
  const sorted = [...figures].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.ceil(part * sorted.length) - 1)];
}

/** Seconds a call takes, over some runs after one to warm up. */
export function time(runs: number, act: () => void): number[] {
  act();
  return Array.from({ length: runs }, () => {
    const from = performance.now();
    act();
    return (performance.now() - from) / 1000;
  });
}

/** One line of the report. */
export function report(what: string, figures: readonly number[], unit: string, scale = 1): void {
  const { median, least, most } = summary(figures.map((f) => f * scale));
  console.log(
    `${what.padEnd(58)} ${median.toPrecision(3).padStart(9)} ${unit.padEnd(10)} (${least.toPrecision(3)} to ${most.toPrecision(3)})`,
  );
}

/** One figure that is no median. */
export function line(what: string, figure: number, unit: string): void {
  console.log(`${what.padEnd(58)} ${figure.toPrecision(3).padStart(9)} ${unit}`);
}
