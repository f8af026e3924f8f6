import { SheetEvaluator } from '@/core/sheet/evaluate';
import { readSheetFile } from '@/core/sheet/file';
import { withDrivers } from '@/core/sheet/references';
import { meets } from '@/core/sheet/verdict';
import { readingName } from '@/core/sheet/words';
import { quantityOfMeasure } from '@/core/response/readings';
import { readArgs, readJson, type Command } from '../command';

export const sheet: Command = {
  name: 'sheet',
  usage: 'FILE',
  summary: 'the readings of a sheet, ideal and built',
  run(args) {
    const { positionals } = readArgs(args, {}, 1);
    const { sheet: document, along } = readSheetFile(readJson(positionals[0]));
    const evaluation = new SheetEvaluator().evaluate(withDrivers(document, along.drivers));
    return {
      title: document.title,
      readings: document.readings.map((reading, i) => {
        const results = evaluation.readings[i].results;
        const built = results.built;
        return {
          name: readingName(
            reading,
            'point',
            document.ways[0].stages.map((s) => s.id),
          ),
          measure: reading.measure,
          quantity: quantityOfMeasure(reading.measure),
          wanted: reading.wanted ?? null,
          values: Object.fromEntries(
            Object.entries(results).map(([layer, r]) => [
              layer,
              r && 'measured' in r ? r.measured.value : null,
            ]),
          ),
          also: Object.fromEntries(
            Object.entries(results).flatMap(([layer, r]) =>
              r && 'measured' in r && r.measured.alsoHz ? [[layer, r.measured.alsoHz]] : [],
            ),
          ),
          errors: Object.fromEntries(
            Object.entries(results).flatMap(([layer, r]) =>
              r && 'error' in r ? [[layer, r.error]] : [],
            ),
          ),
          met:
            reading.wanted && built && 'measured' in built
              ? meets(reading.wanted, built.measured.value)
              : null,
        };
      }),
      joints: evaluation.joints.map((j) => ({
        ...j,
        loadOhms: Number.isFinite(j.loadOhms) ? j.loadOhms : null,
      })),
      problems: evaluation.problems,
    };
  },
};
