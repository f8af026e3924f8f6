import type { BlockDiagram } from '@/core/topologies/topology';
import styles from './block-diagram.module.css';

const [WIDE, TALL, GAP, TOP, STEP] = [96, 28, 34, 26, 22];

/** A signal flow in blocks: a row from input to output, and the ways back under it. */
export function Blocks({ blocks: { row, back } }: { blocks: BlockDiagram }) {
  const left = (i: number) => 20 + i * (WIDE + GAP);
  const width = left(row.length) + 6;
  const height = TOP + TALL + STEP * back.length + 14;
  const middle = TOP + TALL / 2;
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      className={styles.blocks}
      role="img"
      aria-label={`Block diagram: ${row.map((b) => b.text + (b.out ? ` gives ${b.out}` : '')).join(', then ')}; fed back: ${back.map((b) => b.text).join(', ')}`}
    >
      <path d={`M2 ${middle}H${left(0)}`} className={styles.line} />
      {row.map((block, i) => (
        <g key={i}>
          <rect x={left(i)} y={TOP} width={WIDE} height={TALL} rx={3} className={styles.block} />
          <text x={left(i) + WIDE / 2} y={middle + 4} textAnchor="middle" className={styles.text}>
            {block.text}
          </text>
          <path d={`M${left(i) + WIDE} ${middle}h${GAP}l-6 -4m6 4l-6 4`} className={styles.line} />
          {block.out && (
            <text
              x={left(i) + WIDE + GAP / 2}
              y={TOP - 8}
              textAnchor="middle"
              className={styles.out}
            >
              {block.out}
            </text>
          )}
        </g>
      ))}
      {back.map(({ from, to, text }, i) => {
        const y = TOP + TALL + STEP * (i + 1) - 6;
        const x = left(from) + WIDE + GAP * 0.5;
        const end = left(to) + WIDE / 2 + i * 14;
        return (
          <g key={i}>
            <path
              d={`M${x} ${middle}V${y}H${end}V${TOP + TALL}l-4 6m4 -6l4 6`}
              className={styles.line}
            />
            <text x={(x + end) / 2} y={y - 4} textAnchor="middle" className={styles.text}>
              {text}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
