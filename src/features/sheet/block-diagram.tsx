import type { Block, BlockDiagram } from '@/core/topologies/topology';
import { composedId } from '@/core/sheet/path-drawing';
import { setUi, useUi } from './ui-state';
import styles from './block-diagram.module.css';

const [TALL, GAP, TOP, STEP] = [28, 30, 26, 22];
/** Of a letter in a block, and of what stands beside them there. */
const [LETTER, BESIDE, LEAST] = [7.3, 14, 44];

const wideOf = ({ text }: Block): number => Math.max(LEAST, BESIDE + LETTER * text.length);

interface BlocksProps {
  blocks: BlockDiagram;
  /** The stage whose parts make the weights, by id. */
  stage: string;
  /** What its parts are called in the path. */
  names: ReadonlyMap<string, string>;
}

/**
 * A signal flow in blocks: a row from input to output, and the ways back under it. Pointing at a block
 * lights its parts in the circuit, pointing at a part its block; pressing a block chooses its part.
 */
export function Blocks({ blocks: { row, back }, stage, names }: BlocksProps) {
  const left = (i: number) => row.slice(0, i).reduce((x, b) => x + wideOf(b) + GAP, 16);
  const width = left(row.length);
  const height = TOP + TALL + STEP * back.length + 14;
  const middle = TOP + TALL / 2;
  const weight = { stage, names };
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      className={styles.blocks}
      role="group"
      aria-label={`Block diagram: ${row.map((b) => b.text + (b.out ? ` gives ${b.out}` : '')).join(', then ')}; fed back: ${back.map((b) => b.text).join(', ')}`}
    >
      <path d={`M2 ${middle}H${left(0)}`} className={styles.line} />
      {row.map((block, i) => (
        <g key={i}>
          <Weight block={block} {...weight}>
            <rect
              x={left(i)}
              y={TOP}
              width={wideOf(block)}
              height={TALL}
              rx={3}
              className={styles.block}
            />
            <text
              x={left(i) + wideOf(block) / 2}
              y={middle + 4}
              textAnchor="middle"
              className={styles.text}
            >
              {block.text}
            </text>
          </Weight>
          <path
            d={`M${left(i) + wideOf(block)} ${middle}h${GAP}l-6 -4m6 4l-6 4`}
            className={styles.line}
          />
          {block.out && (
            <text
              x={left(i) + wideOf(block) + GAP / 2}
              y={TOP - 8}
              textAnchor="middle"
              className={styles.out}
            >
              {block.out}
            </text>
          )}
        </g>
      ))}
      {back.map((block, i) => {
        const y = TOP + TALL + STEP * (i + 1) - 6;
        const x = left(block.from + 1) - GAP / 2;
        const end = left(block.to) + wideOf(row[block.to]) / 2 - 7 + i * 14;
        return (
          <g key={i}>
            <path
              d={`M${x} ${middle}V${y}H${end}V${TOP + TALL}l-4 6m4 -6l4 6`}
              className={styles.line}
            />
            <Weight block={block} {...weight}>
              <rect
                x={(x + end) / 2 - 24}
                y={y - 17}
                width={48}
                height={17}
                rx={3}
                className={styles.back}
              />
              <text x={(x + end) / 2} y={y - 4} textAnchor="middle" className={styles.text}>
                {block.text}
              </text>
            </Weight>
          </g>
        );
      })}
    </svg>
  );
}

/** A weight that lights the parts that make it, and is lit by them. */
function Weight({
  block: { text, parts = [] },
  stage,
  names,
  children,
}: Omit<BlocksProps, 'blocks'> & { block: Block; children: React.ReactNode }) {
  const own = parts.map((part) => composedId(stage, part));
  const isLit = useUi(
    ({ pointedPart, partId }) =>
      (pointedPart !== null && own.includes(pointedPart)) ||
      (partId !== null && own.includes(partId)),
  );
  if (parts.length === 0) return <g>{children}</g>;
  const point = () => setUi({ litParts: own });
  const leave = () => setUi({ litParts: [] });
  const choose = () => setUi({ partId: own[0], stageId: stage });
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={`${text}: made by ${parts.map((p) => names.get(p) ?? p).join(' and ')}`}
      className={isLit ? `${styles.weight} ${styles.lit}` : styles.weight}
      onPointerEnter={point}
      onPointerLeave={leave}
      onFocus={point}
      onBlur={leave}
      onClick={choose}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' && event.key !== ' ') return;
        event.preventDefault();
        choose();
      }}
    >
      {children}
    </g>
  );
}
