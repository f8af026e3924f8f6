import { demoMade } from '@/testing/demo';
import { SheetEvaluator } from '@/core/sheet/evaluate';
import type { Sheet } from '@/core/sheet/schema';
import { valuesOf, withValue } from '@/core/sheet/stage';
import { packEvaluation, packSheet, unpackEvaluation, unpackSheet } from './evaluation-parcels';
import { Packer, Unpacker } from './parcel';

/** What a parcel is on the way: nothing is the same object on the other side. */
const posted = <T>(parcel: T): T => structuredClone(parcel);

const SHEET = demoMade('2026-11-23T08:00:00.000Z').find((s) => s.ways[0].stages.length > 1)!;

function edited(sheet: Sheet): Sheet {
  const [way, ...others] = sheet.ways;
  const [first, ...rest] = way.stages;
  const [part, value] = Object.entries(valuesOf(first))[0];
  return {
    ...sheet,
    ways: [{ ...way, stages: [withValue(first, part, value * 1.1), ...rest] }, ...others],
  };
}

test('pieces are sent once, come back as the same objects, and are forgotten when they are gone', () => {
  const [packer, unpacker] = [new Packer(), new Unpacker()];
  const [a, b] = [{ is: 'a' }, { is: 'b' }];
  const send = (...list: object[]) => {
    const parcel = posted(packer.pack((piece) => list.map(piece)));
    return {
      fresh: parcel.fresh.length,
      whole: unpacker.unpack(parcel, (n, piece) => n.map(piece)),
    };
  };
  const first = send(a, b, a);
  expect(first).toEqual({ fresh: 2, whole: [a, b, a] });
  expect(first.whole[0]).toBe(first.whole[2]);
  const second = send(b);
  expect(second.fresh).toBe(0);
  expect(second.whole[0]).toBe(first.whole[1]);
  // What was left out once is sent again.
  expect(send(a, b)).toEqual({ fresh: 1, whole: [a, b] });
});

test('an edit sends one stage, and its answer only what stands on it', () => {
  const there = { packer: new Packer(), unpacker: new Unpacker() };
  const back = { packer: new Packer(), unpacker: new Unpacker() };
  const evaluator = new SheetEvaluator();
  const ask = (sheet: Sheet) => {
    const question = posted(packSheet(there.packer, sheet));
    const arrived = unpackSheet(there.unpacker, question);
    expect(arrived).toEqual(sheet);
    const answer = posted(packEvaluation(back.packer, evaluator.evaluate(arrived)));
    return { question, answer, evaluation: unpackEvaluation(back.unpacker, answer) };
  };
  const before = ask(SHEET);
  expect(before.evaluation).toEqual(
    // Keys are each evaluator's own.
    expect.objectContaining({ readings: new SheetEvaluator().evaluate(SHEET).readings }),
  );
  const after = ask(edited(SHEET));
  expect(after.question.fresh).toHaveLength(1);
  const [ideal, built] = after.evaluation.layers;
  expect(ideal.trace).toBe(before.evaluation.layers[0].trace);
  expect(built.trace).not.toBe(before.evaluation.layers[1].trace);
  expect(after.evaluation.stages.slice(1)).toEqual(before.evaluation.stages.slice(1));
  after.evaluation.stages
    .slice(1)
    .forEach((stage, i) => expect(stage).toBe(before.evaluation.stages[i + 1]));
  // And the same again sends nothing at all.
  const again = ask(edited(SHEET));
  expect(again.question.fresh).toHaveLength(1);
});
