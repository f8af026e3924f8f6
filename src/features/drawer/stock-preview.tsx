import { partKindOf } from '@/core/parts';
import { figureWords } from '@/core/parts/device-figures';
import { mainQuantity } from '@/core/parts/quantities';
import { formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { StockRead } from '@/core/library/stock-table';
import type { StockWords } from '@/core/library/stock-words';
import { usePreferences } from '@/store/preferences';
import styles from './drawer.module.css';

/** Lines that are shown; of more the rest is counted. */
const MOST_SHOWN = 60;

/** How each line was understood, and why others were not. Nothing is in the drawer yet. */
export function StockPreview({ read: { good, bad } }: { read: StockRead }) {
  const mark = usePreferences((p) => p.mark);
  const more = good.length - MOST_SHOWN;
  return (
    <div className={styles.preview}>
      {bad.length > 0 && (
        <ul className={styles.badLines} aria-label="Lines that cannot be read">
          {bad.slice(0, MOST_SHOWN).map(({ line, text, why }) => (
            <li key={line}>
              <b>Line {line}</b> “{text}”: {why.replace('The part cannot be read: ', '')}
            </li>
          ))}
          {bad.length > MOST_SHOWN && <li>and {bad.length - MOST_SHOWN} more.</li>}
        </ul>
      )}
      <ul className={styles.goodLines} aria-label="Lines as they are understood">
        {good.slice(0, MOST_SHOWN).map(({ line, words }) => (
          <li key={line}>
            <b>{words.quantity}×</b> {inShort(words, mark)}
          </li>
        ))}
        {more > 0 && <li>and {more} more.</li>}
      </ul>
    </div>
  );
}

/** “22 nF capacitor, 5 %, film, 100 V, at 0.12, in box 3”. */
function inShort(words: StockWords, mark: DecimalMark): string {
  const kind = partKindOf(words.kind);
  const main = mainQuantity(kind);
  const number = (x: number) => formatQuantity(x, 'ratio', { digits: 4, mark });
  const value =
    main && words.value !== undefined
      ? `${formatQuantity(words.value, main.quantity, { unit: true, mark })} ${kind.noun}`
      : words.name;
  const { model, tolerance, make, ppmPerKelvin, ratedVolts, ratedWatts, price, place } = words;
  return [
    value,
    model !== undefined && figureWords(kind, model, mark),
    tolerance !== undefined && `${number(tolerance * 100)} %`,
    make,
    ppmPerKelvin !== undefined && `${number(ppmPerKelvin)} ppm/K`,
    ratedVolts !== undefined && `${number(ratedVolts)} V`,
    ratedWatts !== undefined && `${number(ratedWatts)} W`,
    price !== undefined && `at ${number(price)}`,
    place !== undefined && `in ${place}`,
  ]
    .filter(Boolean)
    .join(', ');
}
