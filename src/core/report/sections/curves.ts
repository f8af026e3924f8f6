import { cardCurve } from '@/core/bank/card-curve';
import { isCrossover } from '@/core/crossover/crossover-design';
import { crossoverCurve } from '@/core/crossover/picture';
import { levelsAt } from '@/core/response/levels-at';
import { outNet } from '@/core/sheet/nets';
import { pathCircuit } from '@/core/sheet/path-circuit';
import { plotSvg } from '../plot-svg';
import { text, type ReportBlock } from '../report';
import type { SectionKind } from '../sheet-report';

/** Level over frequency: ideal, built, and what nine boards in ten lie within. */
export const curves: SectionKind = {
  title: 'Curves',
  async write({ sheet, foreseen }) {
    const { fromHz, toHz } = sheet.view;
    const title = `Level of ${sheet.title} over frequency`;
    const picture = (svg: string): ReportBlock => ({
      is: 'picture',
      name: 'level',
      alt: title,
      svg,
    });
    if (isCrossover(sheet) || sheet.bank) {
      const { frequenciesHz: x, levelDb: y } = isCrossover(sheet)
        ? crossoverCurve(sheet)
        : await cardCurve(sheet);
      const name = sheet.bank ? 'sum of all bands' : 'at the listener, re its highest';
      const curves = [{ name, look: 'solid' as const, x, y }];
      return [picture(plotSvg({ title, fromHz, toHz, curves }))];
    }
    if (!foreseen) return [text('The circuit cannot be solved as it stands.')];
    const { exact, spread } = foreseen;
    const { hz } = exact;
    const ideal = levelsAt(pathCircuit(sheet, 0, 'ideal'), outNet(sheet), hz);
    const svg = plotSvg({
      title,
      fromHz,
      toHz,
      curves: [
        { name: 'built', look: 'solid', x: hz, y: exact.db },
        { name: 'ideal', look: 'dashed', x: hz, y: ideal },
      ],
      band: {
        name: `nine in ten of ${spread.boards} boards`,
        x: spread.levels.hz,
        low: spread.levels.p5,
        high: spread.levels.p95,
      },
    });
    return [picture(svg)];
  },
};
