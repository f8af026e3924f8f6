import { ReedError } from '@/core/errors';
import { candidatesOf } from '@/core/weigh/candidates';
import { weighOne } from '@/core/weigh/weigh';
import { USUAL_PROGRAM } from '@/core/listen/program';
import { SheetEvaluator } from '@/core/sheet/evaluate';
import { valuesOf, withValue } from '@/core/sheet/stage';
import type { SpreadResult } from '@/core/spread/spread';
import { LOW_PASS, newSheet } from '@/testing/open-sheet';
import { bridge } from './bridge';
import { buildSteps } from './build-steps';
import { playBoard } from './play-board';
import { cardCurve } from './card-curve';
import { compareTake } from './compare-take';
import { differences } from './differences';
import { fit } from './fit';
import { foresee } from './foresee';
import { JOBS } from './index';
import type { JobContext } from './job';
import { lens } from './lens';
import { lensBands } from './lens-bands';
import { lessonGoals } from './lesson-goals';
import { matching } from './matching';
import { mendBoard } from './mend-board';
import { partsList } from './parts-list';
import { practiceReasoning } from './practice-reasoning';
import { readBoards } from './read-boards';
import { renderProgram } from './render-program';
import { sweepTake } from './sweep-take';
import { solvePart } from './solve-part';
import { spread } from './spread';
import { spreadPortion } from './spread-portion';
import { stretch } from './stretch';
import { strip } from './strip';
import { tuneCrossover } from './tune-crossover';
import { tuneSchools } from './tune-schools';
import { variation } from './variation';
import { weigh } from './weigh';
import { writeReport } from './write-report';

/** A context that counts pauses, and stops at one of them. */
function context<Step>(stopAt = Infinity) {
  const steps: Step[] = [];
  let pauses = 0;
  const own: JobContext<Step> = {
    pause: () => {
      if (++pauses >= stopAt)
        return Promise.reject(new ReedError('stopped', 'Stopped on request.'));
      return Promise.resolve();
    },
    progress: (step) => steps.push(step),
  };
  return { own, steps, pauses: () => pauses };
}

const SHEET = newSheet();
const CANDIDATES = candidatesOf(
  { ...LOW_PASS, order: 2 },
  { orders: [2], shapes: ['butterworth'], most: 4 },
);
const options = { boards: 30 };

test('the table holds every job under its own name', () => {
  expect(JOBS).toEqual({
    variation,
    lens,
    lensBands,
    lessonGoals,
    bridge,
    buildSteps,
    cardCurve,
    compareTake,
    differences,
    weigh,
    fit,
    foresee,
    spread,
    matching,
    mendBoard,
    partsList,
    playBoard,
    practiceReasoning,
    readBoards,
    renderProgram,
    sweepTake,
    solvePart,
    spreadPortion,
    stretch,
    strip,
    tuneCrossover,
    tuneSchools,
    writeReport,
  });
});

describe('weighing', () => {
  test('hands every candidate over once, in order, each as it would be alone', async () => {
    const { own, steps, pauses } = context();
    const count = await weigh({ candidates: CANDIDATES, options }, own);
    expect(count).toBe(CANDIDATES.length);
    expect(steps).toEqual(CANDIDATES.map((c) => weighOne(c, options)));
    expect(pauses()).toBe(CANDIDATES.length);
  });

  test('says the same for the same input, and stops between two candidates', async () => {
    const [a, b] = [context(), context(3)];
    await weigh({ candidates: CANDIDATES, options }, a.own);
    await expect(weigh({ candidates: CANDIDATES, options }, b.own as never)).rejects.toMatchObject({
      code: 'stopped',
    });
    expect(b.steps).toEqual(a.steps.slice(0, 3));
  });
});

describe('bands of a lens', () => {
  const input = { sheet: SHEET, lens: 'delay', boards: 120, seed: 1 } as const;

  test('are there after a few boards, better after more, and complete at the end', async () => {
    const { own, steps } = context<Awaited<ReturnType<typeof lensBands>>>();
    const all = await lensBands(input, own);
    expect(steps).toHaveLength(2);
    const width = ({ delay }: typeof all) => delay.high[0] - delay.low[0];
    expect(width(all)).toBeGreaterThan(0);
    expect(Math.abs(width(steps[1]) / width(all) - 1)).toBeLessThan(0.3);
    expect(all.delay.at).toEqual(steps[0].delay.at);
  });

  test('stop between slices', async () => {
    const { own } = context<Awaited<ReturnType<typeof lensBands>>>(3);
    await expect(lensBands(input, own)).rejects.toMatchObject({ code: 'stopped' });
  });
});

describe('variation', () => {
  const traceOf = (factor: number) => {
    const [way] = SHEET.ways;
    const [first, ...rest] = way.stages;
    const moved = withValue(first, 'R1', valuesOf(first).R1 * factor);
    const { layers } = new SheetEvaluator().evaluate({
      ...SHEET,
      ways: [{ ...way, stages: [moved, ...rest] }],
    });
    return layers.find((l) => l.id === 'built')!.trace;
  };

  test('is the built curve of each variant, as if it were opened by itself', async () => {
    const traces = await variation(
      { sheet: SHEET, stageId: 's1', part: 'R1', factors: [0.9, 1, 1.1] },
      context<never>().own,
    );
    [0.9, 1, 1.1].forEach((factor, i) => {
      const alone = traceOf(factor);
      expect(traces[i].frequenciesHz).toEqual(alone.frequenciesHz);
      traces[i].levelDb.forEach((db, k) => expect(db).toBeCloseTo(alone.levelDb[k], 9));
    });
  });

  test('goes over a control’s travel', async () => {
    const { R1 } = valuesOf(SHEET.ways[0].stages[0]);
    const moves = [
      { stage: 's1', part: 'R1', quantity: 'ohms', from: R1, to: 2 * R1, law: 'even' as const },
    ];
    const sheet = {
      ...SHEET,
      controls: [{ id: 'c1', name: 'Cut', is: 'turn' as const, at: 0, moves }],
    };
    const [start, end] = await variation(
      { sheet, control: 'c1', places: [0, 1] },
      context<never>().own,
    );
    const wanted = traceOf(1).levelDb;
    start.levelDb.forEach((db, k) => expect(db).toBeCloseTo(wanted[k], 6));
    expect(end.levelDb).not.toEqual(start.levelDb);
  });
});

describe('fitting', () => {
  test('hands over what gets better, ends with the best, and can be stopped', async () => {
    const [a, b] = [context(), context(2)];
    const { nearest, fitted, result } = await fit({ sheet: SHEET }, a.own);
    expect(a.steps.length).toBeGreaterThan(1);
    expect(a.steps[0]).toEqual(nearest);
    expect(a.steps[a.steps.length - 1]).toEqual(fitted);
    expect(result!.fitted.worstDb).toBeLessThan(result!.nearest.worstDb);
    await expect(Promise.resolve(fit({ sheet: SHEET }, b.own as never))).rejects.toMatchObject({
      code: 'stopped',
    });
  });
});

test('a part is solved for by the reading of the sheet as it is built', async () => {
  const measure = SHEET.readings[0].measure;
  const question = { stage: 's1', part: 'R1', measure, want: 3300 };
  const { solutions } = await solvePart({ sheet: SHEET, question }, context<never>().own);
  const [way] = SHEET.ways;
  for (const { value, reads } of solutions) {
    const solved = withValue(way.stages[0], 'R1', value);
    const ways = [{ ...way, stages: [solved, ...way.stages.slice(1)] }];
    const { built } = new SheetEvaluator().evaluate({ ...SHEET, ways }).readings[0].results;
    expect(built).toMatchObject({ measured: { value: expect.closeTo(reads, 2) as number } });
    expect(reads).toBeCloseTo(3300, 2);
  }
  expect(solutions.length).toBeGreaterThan(0);
});

test('a parts list has every part of the drawing, and what it has to stand', async () => {
  const { lines, problems } = await partsList({ sheet: SHEET }, context<never>().own);
  expect(problems).toEqual([]);
  const names = lines.flatMap((l) => l.names);
  expect(names.sort()).toEqual(['A1', 'A2', 'C1', 'C2', 'C3', 'C4', 'R1', 'R2', 'R3', 'R4']);
  expect(lines.reduce((sum, l) => sum + l.each, 0)).toBe(10);
  // 1 V r.m.s. at the source: no capacitor of a unity-gain stage sees much more than its peak.
  for (const { kind, peakVolts, watts } of lines) {
    if (kind === 'capacitor') expect(peakVolts).toBeLessThan(2);
    if (kind === 'resistor') expect(watts).toBeLessThan(1e-3);
  }
});

describe('spread', () => {
  test('hands over a first band soon and better ones after it', async () => {
    const { own, steps } = context<SpreadResult>();
    const all = await spread({ sheet: SHEET, boards: 400, seed: 1 }, own);
    expect(steps.map((s) => s.boards)).toEqual([48, 192, 400]);
    expect(all.boards).toBe(400);
    expect(all.levels).toEqual(steps[2].levels);
    const width = ({ levels }: SpreadResult) => levels.p95[0] - levels.p5[0];
    expect(width(steps[0])).toBeGreaterThan(0);
    expect(Object.keys(all.readings[0]!.shares).length).toBeGreaterThan(2);
  });
});

describe('lenses', () => {
  test.each(['delay', 'map', 'rest'] as const)('%s gives one picture a layer', async (name) => {
    const { own } = context<never>();
    const picture = (await lens({ sheet: SHEET, request: { lens: name } }, own)) as {
      layers: unknown;
    };
    const list = Array.isArray(picture.layers)
      ? picture.layers
      : (picture.layers as { layers: unknown[] }).layers;
    expect(list).toHaveLength(2);
  });

  test.each(['delay', 'map', 'time', 'harmonics', 'rest'] as const)(
    '%s can be stopped',
    async (name) => {
      const request = { lens: name, wave: 'saw', fundamentalHz: 100, shift: 1 } as never;
      await expect(
        Promise.resolve(lens({ sheet: SHEET, request }, context<never>(1).own)),
      ).rejects.toMatchObject({ code: 'stopped' });
    },
  );
});

test('a card’s curve spans what the sheet shows, and falls where the sheet’s does', async () => {
  const { frequenciesHz, levelDb } = await cardCurve({ sheet: SHEET }, context<never>().own);
  expect(frequenciesHz[0]).toBeCloseTo(SHEET.view.fromHz, 2);
  expect(frequenciesHz[frequenciesHz.length - 1] / SHEET.view.toHz).toBeCloseTo(1, 4);
  expect(levelDb[0]).toBeCloseTo(0, 1);
  expect(levelDb[levelDb.length - 1]).toBeLessThan(-60);
  expect(levelDb.every(Number.isFinite)).toBe(true);
});

test('a program is written slice by slice, says how far it is, and can be stopped', async () => {
  const request = {
    sheet: SHEET,
    way: 0,
    program: { ...USUAL_PROGRAM, sound: 'sine' as const, notes: [], opens: 0 },
    seconds: 0.2,
    rate: 48_000,
  };
  const { own, steps } = context<number>();
  const volts = await renderProgram(request, own);
  expect(volts).toHaveLength(9600);
  expect(steps.length).toBeGreaterThan(1);
  expect([...steps].sort((a, b) => a - b)).toEqual(steps);
  await expect(renderProgram(request, context<number>(2).own)).rejects.toThrow(/Stopped/);
});

describe('differences', () => {
  const [way] = SHEET.ways;
  const [first, ...rest] = way.stages;
  const moved = withValue(first, 'R1', 2 * valuesOf(first).R1);
  const after = { ...SHEET, ways: [{ ...way, stages: [moved, ...rest] }] };

  test('are words, numbers and a curve of each state', async () => {
    const { changes, figures, curves, problems } = await differences(
      { before: SHEET, after, over: SHEET },
      context<never>().own,
    );
    expect(problems).toEqual([]);
    expect(changes.map((c) => c.what)).toEqual(['R1']);
    expect(figures.map((f) => f.name)).toHaveLength(SHEET.readings.length);
    expect(curves).toHaveLength(3);
    expect(curves[2]).toEqual(curves[0]);
    expect(curves[1]).not.toEqual(curves[0]);
  });

  test('are told as far as they can be where a state cannot be solved', async () => {
    const bare = {
      ...SHEET,
      ways: [{ ...way, from: { is: 'output' as const, of: { stage: 'gone' } } }],
    };
    const { changes, problems } = await differences(
      { before: SHEET, after: bare },
      context<never>().own,
    );
    expect(changes.length).toBeGreaterThan(0);
    expect(problems.length).toBeGreaterThan(0);
  });
});

test('a report has a section for everything that is known of a sheet, and stops when asked', async () => {
  const boards = [
    { id: 'b1', name: 'First', values: { 'w1/s1/R1': 9100 }, takes: [], note: 'Hums.' },
  ];
  const line = {
    format: 'jaunty-reed/book-entry' as const,
    version: 1 as const,
    id: 'e1',
    name: SHEET.title,
    kind: 'note' as const,
    at: SHEET.createdAt,
    until: SHEET.createdAt,
    changes: [],
    steps: [],
    note: 'The hall likes it so.',
    pictures: [],
  };
  const subject = {
    sheet: { ...SHEET, boards },
    library: { takes: [], drivers: [], drawer: [] },
    lines: [line],
    at: SHEET.createdAt,
  };
  const { sections } = await writeReport(subject, context<never>().own);
  expect(sections.map((s) => s.title)).toEqual([
    'What was asked for',
    'Schematic',
    'Curves',
    'Values, and why',
    'Parts',
    'Test plan',
    'Boards',
    'Decisions',
  ]);
  const [board, decision] = sections.slice(-2).map((s) => JSON.stringify(s.blocks));
  expect(board).toMatch(/First: not built yet.*R1 .* → 9k1.*Hums\./);
  expect(decision).toMatch(/The hall likes it so\./);
  const data = await writeReport({ ...subject, paper: 'data' }, context<never>().own);
  expect(data.subtitle).toMatch(/^Data page of/);
  expect(JSON.stringify(data.sections)).toMatch(/Output impedance.*Most that may come in.*Noise/);
  await expect(writeReport(subject, context<never>(3).own)).rejects.toMatchObject({
    code: 'stopped',
  });
});
