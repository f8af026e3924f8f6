import { messageOf } from '@/core/errors';
import { exactValues } from './exact';
import { formulaTruth, type FormulaTruth } from './formulas';
import { jointFrequency, type Joint } from './joints';
import { layerName } from './layer-name';
import { contextOf, layersOf, type LayerId } from './layers';
import { Results } from './results';
import type { Sheet, Stage } from './schema';
import { SolvedWay, type LayerTrace, type ReadingResult, type WayRequest } from './solved-way';
import { stageCard, type StageCard } from './stage-card';
import { stageText, versionKey } from './version-key';

export interface Layer {
  id: LayerId;
  /** Equal keys mean equal curves: a picture drawn once need not be drawn again. */
  key: string;
  trace: LayerTrace;
}

export interface EvaluatedReading {
  id: string;
  results: Partial<Record<LayerId, ReadingResult>>;
}

/** Each result stands for itself: one that cannot be had is absent, with the reason in `problem`. */
export interface EvaluatedStage extends Partial<StageCard> {
  id: string;
  /** What still holds of its formulas, where it was wired otherwise since it was designed. */
  formulas?: FormulaTruth;
  /** The values that meet its target. */
  exact?: Readonly<Record<string, number>>;
  problem?: string;
}

export interface Evaluation {
  layers: Layer[];
  readings: EvaluatedReading[];
  stages: EvaluatedStage[];
  joints: Joint[];
  /** Highest level at the output of each stage within the whole built path, dB re the source, by id. */
  peaksDb: Readonly<Record<string, number>>;
  /** What could not be computed, in words. */
  problems: string[];
}

/**
 * Everything a sheet shows, from the solver. An evaluator lives as long as its sheet is open:
 * results that stand on nothing that changed are kept, and the equations of a way stay as long as its
 * structure does.
 */
export class SheetEvaluator {
  /** Ways that are shown, by all that bears on them. */
  private ways = new Map<string, SolvedWay>();
  private readonly results = new Results();
  private count = 0;
  /** Tells this evaluator's keys from those of others. */
  private readonly born = Math.random().toString(36).slice(2);

  /** @param way which path of the sheet */
  evaluate(sheet: Sheet, way = 0): Evaluation {
    const problems: string[] = [];
    const layers = this.solve(sheet, way, problems);
    const built = layers.get('built');
    const evaluation: Evaluation = {
      layers: [...layers].map(([id, { key, trace }]) => ({ id, key, trace })),
      readings: sheet.readings.map((reading) => ({
        id: reading.id,
        results: Object.fromEntries([...layers].map(([id, solved]) => [id, solved.read(reading)])),
      })),
      stages: sheet.ways[way].stages.map((stage) =>
        this.results.get(`stage ${stage.id}`, [stageText(stage)], () => evaluateStage(stage)),
      ),
      joints: built ? this.joints(built, jointFrequency(sheet.ask), problems) : [],
      peaksDb: built ? built.peaksDb(sheet.ways[way].stages) : {},
      problems,
    };
    this.results.sweep();
    return evaluation;
  }

  /** Solve the layers that are not at hand, in ways that are no longer shown where they fit. */
  private solve(sheet: Sheet, way: number, problems: string[]): Map<LayerId, SolvedWay> {
    const { fromHz, toHz } = sheet.view;
    const span = { fromHz, toHz };
    const wanted = layersOf(sheet).map(({ id, design, version }) => {
      const request: WayRequest = { design, way, version, span };
      return { id, request, key: versionKey(design, way, version, span, contextOf(design)) };
    });
    const keys = new Set(wanted.map((w) => w.key));
    const retired = [...this.ways].filter(([key]) => !keys.has(key)).map(([, solved]) => solved);
    const next = new Map([...this.ways].filter(([key]) => keys.has(key)));
    const layers = new Map<LayerId, SolvedWay>();
    for (const { id, request, key } of wanted) {
      try {
        let solved = next.get(key);
        if (!solved) {
          const alike = retired.findIndex((r) => r.version === request.version);
          const [old] = alike < 0 ? [] : retired.splice(alike, 1);
          solved = new SolvedWay(`${this.born}-${++this.count}`, request, old);
          next.set(key, solved);
        }
        layers.set(id, solved);
      } catch (error) {
        problems.push(`${layerName(id, sheet)}: ${messageOf(error)}`);
      }
    }
    this.ways = next;
    return layers;
  }

  private joints(built: SolvedWay, atHz: number, problems: string[]): Joint[] {
    try {
      return this.results.get('joints', [built, atHz], () => built.joints(atHz));
    } catch (error) {
      problems.push(messageOf(error));
      return [];
    }
  }
}

function evaluateStage(stage: Stage): EvaluatedStage {
  const result: EvaluatedStage = { id: stage.id };
  const attempt = (compute: () => void) => {
    try {
      compute();
    } catch (error) {
      result.problem ??= messageOf(error);
    }
  };
  attempt(() => {
    const exact = exactValues(stage);
    if (exact) result.exact = exact;
  });
  attempt(() => Object.assign(result, stageCard(stage)));
  attempt(() => {
    const formulas = formulaTruth(stage);
    if (formulas) result.formulas = formulas;
  });
  return result;
}
