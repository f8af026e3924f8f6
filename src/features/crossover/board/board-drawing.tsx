import { useState, type KeyboardEvent } from 'react';
import type { CoilPair } from '@/core/crossover/board/couplings';
import { BUS_METRES, footprint, type BoardPart } from '@/core/crossover/board/layout';
import { formatFixed } from '@/core/quantity/format';
import type { BoardLayout } from '@/core/sheet/board-schema';
import { usePreferences } from '@/store/preferences';
import { useDrag } from '@/ui/schematic/use-drag';
import { useSize } from '@/ui/chart/use-size';
import styles from './board.module.css';

/** Parts are moved in steps of this, metres. */
const STEP = 0.002;
/** Couplings below this are not drawn. */
const SHOWN = 1e-3;

interface Props {
  board: BoardLayout;
  parts: readonly BoardPart[];
  /** What coils share as parts lie, for those who move them too. */
  pairsOf: (parts: readonly BoardPart[]) => CoilPair[];
  selected: string | null;
  onSelect: (key: string) => void;
  onMove: (part: BoardPart, xMetres: number, yMetres: number) => void;
}

export const keyOf = ({ stage, part }: Pick<BoardPart, 'stage' | 'part'>): string =>
  `${stage}/${part}`;

/** The board from above, to scale: parts are moved, and what coils share is drawn between them. */
export function BoardDrawing({ board, parts, pairsOf, selected, onSelect, onMove }: Props) {
  const mark = usePreferences((p) => p.mark);
  const [host, size] = useSize<HTMLDivElement>();
  const [held, setHeld] = useState<{ key: string; by: readonly [number, number] } | null>(null);
  const scale = size
    ? Math.min(size.width / board.widthMetres, size.height / board.heightMetres)
    : 1;
  const shown = parts.map((p) =>
    held?.key === keyOf(p)
      ? { ...p, ...within(board, p.xMetres + held.by[0] * STEP, p.yMetres + held.by[1] * STEP) }
      : p,
  );
  const pairs = pairsOf(shown).filter(({ k }) => Math.abs(k) > SHOWN);
  const [width, height] = [board.widthMetres * scale, board.heightMetres * scale];
  return (
    <div ref={host} className={styles.host}>
      {size && (
        <svg
          width={width}
          height={height}
          className={styles.board}
          role="group"
          aria-label={`Board of ${Math.round(1000 * board.widthMetres)} by ${Math.round(1000 * board.heightMetres)} mm`}
        >
          <rect x={0.5} y={0.5} width={width - 1} height={height - 1} className={styles.plate} />
          <path d={`M8 ${height - (BUS_METRES * scale) / 2}H${width - 8}`} className={styles.bus} />
          <text x={12} y={height - (BUS_METRES * scale) / 2 - 5} className={styles.note}>
            common return
          </text>
          {pairs.map(({ a, b, k }) => (
            <path
              key={`${a.name} ${b.name}`}
              className={styles.pair}
              d={`M${a.xMetres * scale} ${a.yMetres * scale}L${b.xMetres * scale} ${b.yMetres * scale}`}
              strokeWidth={Math.min(8, 1 + 200 * Math.abs(k))}
            />
          ))}
          {parts.map((own, i) => (
            <Placed
              key={keyOf(own)}
              part={shown[i]}
              scale={scale}
              selected={keyOf(own) === selected}
              onSelect={() => onSelect(keyOf(own))}
              onHold={(by) => setHeld(by ? { key: keyOf(own), by } : null)}
              onMove={(dx, dy) => {
                const to = within(board, own.xMetres + dx * STEP, own.yMetres + dy * STEP);
                onMove(own, to.xMetres, to.yMetres);
              }}
            />
          ))}
          {sharedWords(pairs, shown, scale).map(({ pair: { a, b, k }, x, y }) => (
            <text key={`${a.name} ${b.name}`} className={styles.share} x={x} y={y + 4}>
              {formatFixed(100 * Math.abs(k), 1, mark)} %
            </text>
          ))}
        </svg>
      )}
    </div>
  );
}

/** Where a word is tried: along its line, the middle first, and then beside it, pixels. */
const ALONG = [0.5, 0.4, 0.6, 0.32, 0.68, 0.25, 0.75, 0.18, 0.82];
const BESIDE = [0, -14, 14, -30, 30, -46, 46];
/** The room that it takes, pixels. */
const WORD = { width: 44, height: 15 };

/** Where it is said how much each pair shares: on its line or near it, clear of parts and other words. */
function sharedWords(pairs: readonly CoilPair[], parts: readonly BoardPart[], scale: number) {
  const taken = parts.map((part) => {
    const { width, height } = footprint(part);
    return {
      x: part.xMetres * scale,
      y: part.yMetres * scale,
      width: width * scale,
      height: height * scale,
    };
  });
  const clear = (x: number, y: number) =>
    taken.every(
      (o) =>
        Math.abs(o.x - x) * 2 >= o.width + WORD.width ||
        Math.abs(o.y - y) * 2 >= o.height + WORD.height,
    );
  return pairs.map((pair) => {
    const { a, b } = pair;
    const at = (t: number) => ({
      x: (a.xMetres + (b.xMetres - a.xMetres) * t) * scale,
      y: (a.yMetres + (b.yMetres - a.yMetres) * t) * scale,
    });
    const places = BESIDE.flatMap((down) =>
      ALONG.map((t) => {
        const { x, y } = at(t);
        return { x, y: y + down };
      }),
    );
    const place = places.find(({ x, y }) => clear(x, y)) ?? places[0];
    taken.push({ ...place, ...WORD });
    return { pair, ...place };
  });
}

/** A place on the board. */
function within({ widthMetres, heightMetres }: BoardLayout, x: number, y: number) {
  const tidy = (v: number, most: number) => Number(Math.min(most, Math.max(0, v)).toFixed(4));
  return { xMetres: tidy(x, widthMetres), yMetres: tidy(y, heightMetres) };
}

const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

function Placed({
  part,
  scale,
  selected,
  onSelect,
  onHold,
  onMove,
}: {
  part: BoardPart;
  scale: number;
  selected: boolean;
  onSelect: () => void;
  onHold: (by: readonly [number, number] | null) => void;
  onMove: (dx: number, dy: number) => void;
}) {
  const { shift, handlers } = useDrag(STEP * scale, ([dx, dy]) => onMove(dx, dy));
  const [x, y] = [part.xMetres * scale, part.yMetres * scale];
  const keys = (event: KeyboardEvent) => {
    const by = ARROWS[event.key];
    if (by) onMove(...by);
    else if (event.key === 'Enter' || event.key === ' ') onSelect();
    else return;
    event.preventDefault();
  };
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={`${part.name}, ${lyingWords(part)}, at ${Math.round(1000 * part.xMetres)}, ${Math.round(1000 * part.yMetres)} mm`}
      aria-pressed={selected}
      className={`${styles.part} ${styles[part.kind] ?? ''} ${selected ? styles.selected : ''}`}
      transform={`translate(${x.toFixed(1)} ${y.toFixed(1)})`}
      {...handlers}
      onPointerMove={(e) => {
        handlers.onPointerMove(e);
        if (shift) onHold(shift);
      }}
      onPointerUp={() => {
        handlers.onPointerUp();
        onHold(null);
      }}
      onPointerCancel={() => {
        handlers.onPointerCancel();
        onHold(null);
      }}
      onClick={onSelect}
      onKeyDown={keys}
    >
      <Body part={part} scale={scale} />
      <text className={styles.name} dy="4">
        {part.name}
      </text>
    </g>
  );
}

const lyingWords = ({ coil, lies, degrees }: BoardPart): string =>
  coil ? (lies === 'flat' ? 'coil, flat' : `coil on its edge, ${degrees}°`) : 'lying';

/** A part from above: a coil as its rings or its side, with its axis; others as they lie along. */
function Body({ part, scale }: { part: BoardPart; scale: number }) {
  const { coil, lies, degrees, alongMetres, acrossMetres, kind } = part;
  if (coil && lies === 'flat')
    return (
      <>
        <circle r={(coil.outerMetres / 2) * scale} />
        <circle r={(coil.innerMetres / 2) * scale} className={styles.hole} />
      </>
    );
  const along = (coil ? coil.lengthMetres : alongMetres) * scale;
  const across = (coil ? coil.outerMetres : acrossMetres) * scale;
  return (
    <g transform={`rotate(${degrees})`}>
      <rect
        x={-along / 2}
        y={-across / 2}
        width={along}
        height={across}
        rx={kind === 'capacitor' ? across / 4 : 1}
      />
      {coil && <path d={`M${-along / 2 - 6} 0H${along / 2 + 6}`} className={styles.axis} />}
    </g>
  );
}

/** How much room a part takes, in words. */
export const roomWords = (part: BoardPart): string => {
  const { width, height } = footprint(part);
  return `${Math.round(1000 * width)} × ${Math.round(1000 * height)} mm`;
};
