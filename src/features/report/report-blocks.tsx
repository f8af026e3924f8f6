import { useEffect, useMemo } from 'react';
import type { ReportBlock, ReportPicture, ReportTable } from '@/core/report/report';
import { Tex } from '@/ui/controls/tex';
import styles from './report.module.css';

/** The pieces of a section, one below the other. */
export function ReportBlocks({ blocks }: { blocks: readonly ReportBlock[] }) {
  return blocks.map((block, i) => <Block key={i} block={block} />);
}

function Block({ block }: { block: ReportBlock }) {
  switch (block.is) {
    case 'text':
      return <p>{block.text}</p>;
    case 'list':
      return (
        <ul>
          {block.items.map((item, i) => (
            <li key={i}>{item}</li>
          ))}
        </ul>
      );
    case 'formula':
      return (
        <p className={styles.formula}>
          <Tex formula={`\\displaystyle ${block.tex}`} />
        </p>
      );
    case 'picture':
      return <Picture {...block} />;
    case 'table':
      return <Table {...block} />;
  }
}

function Table({ head, rows, numbers }: ReportTable) {
  const side = (i: number) => (numbers.includes(i) ? styles.number : undefined);
  return (
    <table className={styles.table}>
      <thead>
        <tr>
          {head.map((name, i) => (
            <th key={i} scope="col" className={side(i)}>
              {name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row, r) => (
          <tr key={r}>
            {row.map((cell, i) => (
              <td key={i} className={side(i)}>
                {cell}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Picture({ alt, svg }: ReportPicture) {
  const url = useMemo(() => URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' })), [svg]);
  useEffect(() => () => URL.revokeObjectURL(url), [url]);
  return <img className={styles.picture} src={url} alt={alt} />;
}
