import type { Report, ReportBlock, ReportPicture } from './report';

/** The pictures of a report, in order. */
export const picturesOf = ({ sections }: Report): ReportPicture[] =>
  sections.flatMap(({ blocks }) => blocks.filter((b): b is ReportPicture => b.is === 'picture'));

/** A report as Markdown; its pictures lie beside it as `NAME.svg`. */
export function markdownOf({ title, subtitle, sections }: Report): string {
  return [
    `# ${inline(title)}`,
    '',
    inline(subtitle),
    ...sections.flatMap((section) => [
      '',
      `## ${inline(section.title)}`,
      ...section.blocks.flatMap((block) => ['', blockOf(block)]),
    ]),
    '',
  ].join('\n');
}

function blockOf(block: ReportBlock): string {
  switch (block.is) {
    case 'text':
      return inline(block.text);
    case 'list':
      return block.items.map((item) => `- ${inline(item)}`).join('\n');
    case 'formula':
      return `$$${block.tex}$$`;
    case 'picture':
      return `![${inline(block.alt)}](${block.name}.svg)`;
    case 'table': {
      const row = (cells: readonly string[]) =>
        `| ${cells.map((cell) => inline(cell).replaceAll('|', '\\|') || ' ').join(' | ')} |`;
      const rule = block.head.map((_, i) => (block.numbers.includes(i) ? '---:' : '---'));
      return [row(block.head), `| ${rule.join(' | ')} |`, ...block.rows.map(row)].join('\n');
    }
  }
}

/** Words on one line, in which nothing is taken for a mark. */
const inline = (words: string): string =>
  words.replace(/\s*\n\s*/g, ' ').replace(/([\\`*_[\]<>#])/g, '\\$1');
