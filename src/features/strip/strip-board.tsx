import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import {
  bodyHoles,
  pinHoles,
  spansOf,
  type Board,
  type Component,
  type Hole,
  type Standing,
} from '@/core/strip/board';
import { holeWords, type BoardFault } from '@/core/strip/check';
import { movePart } from './use-board';
import styles from './strip.module.css';

/** A tenth of an inch. */
export const PITCH_MM = 2.54;

interface BoardProps {
  components: readonly Component[];
  board: Board;
  faults: readonly BoardFault[];
  /** Seen from the copper, left is right. */
  mirrored: boolean;
  chosen: string | null;
  onChoose: (id: string | null) => void;
}

/** A stripboard to scale; parts are moved by dragging, or by keys while they have the focus. */
export function StripBoard({ components, board, faults, mirrored, chosen, onChoose }: BoardProps) {
  const { rows, cols, cuts, links } = board;
  const x = (col: number) => (mirrored ? cols - 1 - col : col) + 0.5;
  const y = (row: number) => row + 0.5;
  const bad = new Set(faults.flatMap((f) => f.holes.map((h) => `${h.row} ${h.col}`)));
  return (
    <svg
      className={styles.board}
      viewBox={`-1.2 -1.2 ${cols + 1.8} ${rows + 1.8}`}
      width={`${((cols + 1.8) * PITCH_MM).toFixed(2)}mm`}
      height={`${((rows + 1.8) * PITCH_MM).toFixed(2)}mm`}
      role="group"
      data-copper={mirrored || undefined}
      aria-label={`Board of ${rows} strips, ${cols} holes each, seen from the ${mirrored ? 'copper' : 'parts'}`}
    >
      {Array.from({ length: rows }, (_, row) => (
        <g key={row}>
          <rect
            className={styles.strip}
            x={0.04}
            width={cols - 0.08}
            y={row + 0.12}
            height={0.76}
          />
          <text className={styles.count} x={-0.2} y={y(row) + 0.2} textAnchor="end">
            {row + 1}
          </text>
          {Array.from({ length: cols }, (_, col) => (
            <circle key={col} className={styles.hole} cx={x(col)} cy={y(row)} r={0.2} />
          ))}
        </g>
      ))}
      {Array.from({ length: Math.floor((cols - 1) / 5) + 1 }, (_, k) => (
        <text key={k} className={styles.count} x={x(5 * k)} y={-0.35} textAnchor="middle">
          {5 * k + 1}
        </text>
      ))}
      {cuts.map(({ row, col }) => (
        <g key={`cut ${row} ${col}`} className={styles.cut}>
          <rect x={x(col) - 0.36} width={0.72} y={y(row) - 0.42} height={0.84} />
          <path d={`M${x(col) - 0.25} ${y(row) - 0.25}l0.5 0.5m0 -0.5l-0.5 0.5`} />
        </g>
      ))}
      {links.map(({ from, to }, k) => (
        <g key={k} className={styles.link}>
          <line x1={x(from.col)} y1={y(from.row)} x2={x(to.col)} y2={y(to.row)} />
          {[from, to].map((h) => (
            <circle key={`${h.row} ${h.col}`} cx={x(h.col)} cy={y(h.row)} r={0.24} />
          ))}
        </g>
      ))}
      {components.map((c) => (
        <Part
          key={c.id}
          component={c}
          standing={board.parts[c.id]}
          x={x}
          y={y}
          mirrored={mirrored}
          isChosen={chosen === c.id}
          isBad={pinHoles(c, board.parts[c.id]).some((h) => bad.has(`${h.row} ${h.col}`))}
          onChoose={onChoose}
        />
      ))}
    </svg>
  );
}

interface PartProps {
  component: Component;
  standing: Standing;
  x: (col: number) => number;
  y: (row: number) => number;
  mirrored: boolean;
  isChosen: boolean;
  isBad: boolean;
  onChoose: (id: string | null) => void;
}

const ARROWS: Readonly<Record<string, Hole>> = {
  ArrowUp: { row: -1, col: 0 },
  ArrowDown: { row: 1, col: 0 },
  ArrowLeft: { row: 0, col: -1 },
  ArrowRight: { row: 0, col: 1 },
};

function Part(props: PartProps) {
  const { component, standing, x, y, mirrored, isChosen, isBad, onChoose } = props;
  const { id } = component;
  const pins = pinHoles(component, standing);
  const drag = useRef<{ at: Hole; x: number; y: number; pitch: number } | null>(null);
  const move = (by: Hole) =>
    movePart(id, {
      ...standing,
      at: { row: standing.at.row + by.row, col: standing.at.col + (mirrored ? -by.col : by.col) },
    });
  const onKeyDown = (event: KeyboardEvent) => {
    const arrow = ARROWS[event.key];
    const spans = spansOf(component);
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (arrow) move(arrow);
    else if (event.key === 't')
      movePart(id, { ...standing, turn: ((standing.turn + 1) % 4) as Standing['turn'] });
    else if (spans && (event.key === '+' || event.key === '-')) {
      const span = standing.span + (event.key === '+' ? 1 : -1);
      movePart(id, { ...standing, span: Math.min(spans[1], Math.max(spans[0], span)) });
    } else return;
    event.preventDefault();
    event.nativeEvent.stopImmediatePropagation();
  };
  const begin = (event: PointerEvent<SVGGElement>) => {
    const svg = event.currentTarget.ownerSVGElement;
    if (!svg) return;
    onChoose(id);
    event.currentTarget.setPointerCapture(event.pointerId);
    const pitch = svg.getBoundingClientRect().width / svg.viewBox.baseVal.width;
    drag.current = { at: standing.at, x: event.clientX, y: event.clientY, pitch };
  };
  const follow = (event: PointerEvent) => {
    const from = drag.current;
    if (!from) return;
    const across = Math.round((event.clientX - from.x) / from.pitch);
    const at = {
      row: from.at.row + Math.round((event.clientY - from.y) / from.pitch),
      col: from.at.col + (mirrored ? -across : across),
    };
    if (at.row !== standing.at.row || at.col !== standing.at.col) movePart(id, { ...standing, at });
  };
  const covered = [...pins, ...bodyHoles(component, standing)];
  const cols = covered.map((h) => x(h.col));
  const rows = covered.map((h) => y(h.row));
  const [left, top] = [Math.min(...cols) - 0.38, Math.min(...rows) - 0.38];
  const [width, height] = [Math.max(...cols) + 0.38 - left, Math.max(...rows) + 0.38 - top];
  const word = id.replace(/^(wire |reference\.)/, '');
  const [middle, centre] = [left + width / 2, top + height / 2];
  // Along the part, where that is where there is room.
  const upright = height > width && word.length > 2;
  return (
    <g
      className={styles.part}
      role="button"
      tabIndex={0}
      aria-pressed={isChosen}
      aria-label={`${id}: ${pins.map((h, k) => `${component.pins[k].name} ${holeWords(h)}`).join('; ')}`}
      data-bad={isBad || undefined}
      data-wire={component.footprint === 'pad' || undefined}
      onFocus={() => onChoose(id)}
      onKeyDown={onKeyDown}
      onPointerDown={begin}
      onPointerMove={follow}
      onPointerUp={() => (drag.current = null)}
      onPointerCancel={() => (drag.current = null)}
    >
      <rect x={left} y={top} width={width} height={height} rx={0.3} />
      {pins.map((h, k) => (
        <circle
          key={k}
          className={k === 0 ? styles.first : undefined}
          cx={x(h.col)}
          cy={y(h.row)}
          r={0.22}
        />
      ))}
      <text
        x={middle}
        y={centre + 0.22}
        textAnchor="middle"
        data-long={word.length > 3 || undefined}
        transform={upright ? `rotate(-90 ${middle} ${centre})` : undefined}
      >
        {word}
      </text>
    </g>
  );
}
