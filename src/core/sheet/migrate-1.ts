import { realValues } from './real-values';
import { exactValues } from './exact';
import { partChoicesSchema, stageSchema, type ChosenBy } from './schema';
import { designedAs } from './stage';

/*
 * Sheets of version 1: every path had a source and a load of its own, and a stage had bare values.
 * In version 2 the source stands once, a way says where it begins and what it ends in, and a part
 * says who chose its value.
 *
 * Documents may be damaged here: whatever is not as expected is handed on for the reader to name.
 */

type Fields = Record<string, unknown>;

const isFields = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const fieldsOf = (value: unknown): Fields => (isFields(value) ? value : {});

/** A sheet of version 1 as one of version 2. */
export function fromVersion1({ controls, boards, ...sheet }: Fields): Fields {
  return {
    ...designFrom1({ ...sheet, controls: controls ?? [], boards: boards ?? [] }),
    ...(Array.isArray(sheet.keeps)
      ? {
          keeps: sheet.keeps.map((keep: unknown) =>
            isFields(keep) && isFields(keep.design)
              ? { ...keep, design: designFrom1({ ...keep.design, controls: [], boards: [] }) }
              : keep,
          ),
        }
      : {}),
  };
}

function designFrom1(design: Fields): Fields {
  const { ways, bank, parts } = design;
  if (!Array.isArray(ways)) return design;
  const sources = ways.map((way: unknown) => fieldsOf(way).source);
  const ohms = sources.map((source) => fieldsOf(source).ohms);
  // Each had a source of its own: what several do not share stays with each.
  const apart = ways.length > 1 && ohms.some((x) => x !== 0);
  const signs = signsOf(bank);
  return {
    ...design,
    source: apart ? { ...fieldsOf(sources[0]), ohms: 0 } : sources[0],
    ways: ways.map((way: unknown, i) =>
      isFields(way)
        ? wayFrom1(way, {
            parts,
            from: apart && ohms[i] !== 0 ? { is: 'source', ohms: ohms[i] } : { is: 'source' },
            end: signs ? { is: 'mix', gain: signs[i] ?? 1 } : { is: 'load' },
          })
        : way,
    ),
  };
}

function wayFrom1(
  { source: _, load, stages, ...way }: Fields,
  { parts, from, end }: { parts: unknown; from: Fields; end: Fields },
): Fields {
  return {
    ...way,
    from,
    stages: Array.isArray(stages)
      ? stages.map((stage: unknown) => (isFields(stage) ? stageFrom1(stage, parts) : stage))
      : stages,
    to: isFields(load) ? { ...end, ...load } : load,
  };
}

function stageFrom1({ values, ...stage }: Fields, parts: unknown): Fields {
  if (!isFields(values)) return stage;
  const nearest = nearestOf(stage, parts);
  return {
    ...stage,
    parts: Object.fromEntries(
      Object.entries(values).map(([id, value]) => {
        const chosen: ChosenBy = nearest?.[id] === value ? 'fit' : 'hand';
        return [id, { value, chosen }];
      }),
    ),
  };
}

/** The values that the series would have chosen; nothing where that cannot be told. */
function nearestOf(stage: Fields, parts: unknown): Readonly<Record<string, number>> | undefined {
  const read = stageSchema.safeParse({ ...stage, parts: {} });
  const choices = partChoicesSchema.safeParse(parts);
  const topology = read.success ? designedAs(read.data) : undefined;
  if (!read.success || !choices.success || !topology) return undefined;
  try {
    return realValues(topology, exactValues(read.data) ?? {}, choices.data);
  } catch {
    return undefined;
  }
}

/** With which sign each channel of a bank enters the sum; nothing for a sheet that is no bank. */
function signsOf(bank: unknown): number[] | undefined {
  if (!isFields(bank)) return undefined;
  const channels: unknown[] = Array.isArray(bank.channels) ? bank.channels : [];
  const centres = channels.map((c) => Number(fieldsOf(c).centreHz));
  const sorted = [...centres.keys()].sort((a, b) => centres[a] - centres[b]);
  return centres.map((_, i) => (bank.alternate !== false && sorted.indexOf(i) % 2 === 1 ? -1 : 1));
}
