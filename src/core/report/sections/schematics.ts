import { isCrossover } from '@/core/crossover/crossover-design';
import { networkLabels } from '@/core/crossover/network-labels';
import { networkDrawing } from '@/core/crossover/network-drawing';
import { schematicSvg } from '@/core/formats/schematic-svg';
import { composeDrawing } from '@/core/sheet/path-drawing';
import { pathLabels } from '@/core/sheet/path-labels';
import type { ReportBlock } from '../report';
import type { SectionKind } from '../sheet-report';

/** The circuit, with every name and value where it stands. */
export const schematics: SectionKind = {
  title: 'Schematic',
  write({ sheet }) {
    const picture = (name: string, alt: string, svg: string): ReportBlock => ({
      is: 'picture',
      name,
      alt,
      svg,
    });
    if (isCrossover(sheet)) {
      const svg = schematicSvg(networkDrawing(sheet.ways), networkLabels(sheet.ways), {
        title: sheet.title,
      });
      return [picture('schematic', `Schematic of ${sheet.title}`, svg)];
    }
    return sheet.ways.flatMap((way, w) => {
      const stages = way.stages.filter((s) => !s.bypassed);
      if (stages.length === 0) return [];
      const several = sheet.ways.length > 1;
      const title = several ? way.name || way.id : sheet.title;
      const svg = schematicSvg(composeDrawing(stages), pathLabels(stages), { title });
      const name = several ? `schematic-${w + 1}` : 'schematic';
      return [picture(name, `Schematic of ${title}`, svg)];
    });
  },
};
