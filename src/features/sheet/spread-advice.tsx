import { useState } from 'react';
import { messageOf, ReedError } from '@/core/errors';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { Matching } from '@/core/sheet/matching';
import { partNames } from '@/core/sheet/path-circuit';
import type { Reading, Sheet } from '@/core/sheet/schema';
import { drawnParts, valuesOf } from '@/core/sheet/stage';
import { USUAL_DEVIATIONS } from '@/core/sheet/usual-deviations';
import type { ShopOffer } from '@/core/shop/offer';
import { solvedSheet, useOpenLibrary } from '@/store/open-library';
import { engine } from '@/workers/engine';
import { askShop } from '../drawer/shop-service';
import { percent, printSpan } from './spread-words';
import { SEED } from './spreads';
import styles from './spread.module.css';

interface AdviceProps {
  sheet: Sheet;
  reading: Reading;
  /** The part with the largest share. */
  heaviest: string;
  mark: DecimalMark;
}

/** What could be done about a spread: a part bought closer, and what that costs; two parts matched. */
export function SpreadAdvice(props: AdviceProps) {
  const [said, setSaid] = useState<string | null>(null);
  const [asking, setAsking] = useState<'price' | 'match' | null>(null);
  const ask = (what: 'price' | 'match', answer: () => Promise<string>) => {
    setAsking(what);
    setSaid(null);
    answer()
      .then(setSaid)
      .catch((error: unknown) => {
        if (!(error instanceof ReedError)) throw error;
        setSaid(messageOf(error));
      })
      .finally(() => setAsking(null));
  };
  return (
    <>
      <p className={styles.ask}>
        <button
          type="button"
          disabled={asking !== null}
          onClick={() => ask('price', () => priceOf(props))}
        >
          What would {props.heaviest} cost closer?
        </button>
        <button
          type="button"
          disabled={asking !== null}
          onClick={() => ask('match', () => matchOf(props))}
        >
          Which two to match?
        </button>
      </p>
      {asking === 'match' && <p className={styles.quiet}>Trying every pair …</p>}
      {said !== null && <p role="status">{said}</p>}
    </>
  );
}

async function matchOf({ sheet, reading, mark }: AdviceProps): Promise<string> {
  const at = sheet.readings.findIndex((r) => r.id === reading.id);
  const { drawer } = useOpenLibrary.getState().library;
  const input = { sheet: solvedSheet(sheet), reading: at, seed: SEED, drawer };
  const match = await engine().run('matching', input);
  return match
    ? matchWords(match, reading, mark)
    : 'No two parts of a stage, matched to each other, would make it surer by a tenth.';
}

function matchWords(
  { parts: [a, b], within, matched, loose }: Matching,
  { measure }: Reading,
  mark: DecimalMark,
): string {
  const near = formatFixed(within * 100, within < 0.01 ? 1 : 0, mark);
  const spans = [matched, loose].map(({ p5, p95 }) => printSpan(measure, p5, p95, mark));
  const met =
    matched.met !== null && loose.met !== null
      ? `; ${percent(matched.met, mark)} as wanted instead of ${percent(loose.met, mark)}`
      : '';
  return `Match ${a} and ${b} to ${near} %: nine in ten then read ${spans[0]} instead of ${spans[1]}${met}.`;
}

/** What the shop asks for the heaviest part, as it is and closer. */
async function priceOf({ sheet, heaviest, mark }: AdviceProps): Promise<string> {
  const part = partNamed(sheet, heaviest);
  if (!part) return `${heaviest} is none of the parts that a shop sells by their value.`;
  const { kind, value, tolerance } = part;
  const { offers } = await askShop({ text: '', kind, value }, 'fair');
  const same = offers.filter((o) => o.value !== undefined && Math.abs(o.value / value - 1) < 1e-6);
  const cheapest = (within: number): ShopOffer | undefined =>
    same
      .filter((o) => (o.tolerance ?? 1) <= within * (1 + 1e-9))
      .reduce<ShopOffer | undefined>((a, b) => (a && a.price <= b.price ? a : b), undefined);
  const [usual, closer] = [cheapest(tolerance), cheapest(tolerance / 2)];
  if (!closer) return `The shop has no ${heaviest} closer than ${percent(tolerance, mark)}.`;
  const money = (x: number) => formatFixed(x, 2, mark);
  const instead = usual && usual !== closer ? ` instead of ${money(usual.price)}` : '';
  const near = formatQuantity(closer.tolerance! * 100, 'ratio', { digits: 2, mark });
  return `${closer.name}, ${near} %: ${money(closer.price)} each${instead}.`;
}

function partNamed(sheet: Sheet, name: string) {
  const { stages } = sheet.ways[0];
  const names = partNames(stages);
  const deviations = sheet.parts.deviations ?? USUAL_DEVIATIONS;
  for (const stage of stages)
    for (const { id, kind } of drawnParts(stage)) {
      if (names.get(stage.id)?.get(id) !== name) continue;
      if (kind !== 'resistor' && kind !== 'capacitor' && kind !== 'inductor') return undefined;
      const value = valuesOf(stage)[id];
      return { kind, value, tolerance: stage.parts[id].tolerance ?? deviations[kind] };
    }
  return undefined;
}
