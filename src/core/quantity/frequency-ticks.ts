/** Frequencies worth a grid line: 1, 2 and 5 in each decade within a span, ends included. */
export function frequencyTicks(fromHz: number, toHz: number): number[] {
  const steps = Math.log10(toHz / fromHz) > 5 ? [1] : [1, 2, 5];
  const ticks: number[] = [];
  for (
    let decade = Math.floor(Math.log10(fromHz));
    decade <= Math.ceil(Math.log10(toHz));
    decade++
  ) {
    for (const step of steps) {
      const hz = Number(`${step}e${decade}`);
      if (hz >= fromHz * 0.9999 && hz <= toHz * 1.0001) ticks.push(hz);
    }
  }
  return ticks;
}

/** "50", "2k", "0.5": the short form under an axis. */
export function frequencyLabel(hz: number): string {
  if (hz >= 1e6) return `${Number((hz / 1e6).toPrecision(3))}M`;
  if (hz >= 1e3) return `${Number((hz / 1e3).toPrecision(3))}k`;
  return `${Number(hz.toPrecision(3))}`;
}
