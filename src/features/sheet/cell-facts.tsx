import { cellOf } from '@/core/cells';
import type { CellPicture } from '@/core/lenses/cell';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { Sheet, Stage } from '@/core/sheet/schema';
import { useSheet } from '@/store/sheet-session';
import type { FilterFigures } from '@/core/synth/tune';
import { usePreferences } from '@/store/preferences';
import { Tex } from '@/ui/controls/tex';
import { useLens } from './use-lens';
import styles from './stage-facts.module.css';

/** A voltage-controlled cell: its textbook beside the solved path, and why each part is there. */
export function CellFacts(cell: { stage: Stage; names: ReadonlyMap<string, string> }) {
  const sheet = useSheet();
  return sheet && <Facts sheet={sheet} {...cell} />;
}

function Facts({
  sheet,
  stage,
  names,
}: {
  sheet: Sheet;
  stage: Stage;
  names: ReadonlyMap<string, string>;
}) {
  const cell = cellOf(stage.cell)!;
  const { picture, problem, stale } = useLens(sheet, { lens: 'cell', stage: stage.id });
  return (
    <div className={styles.facts}>
      <p>{cell.about}</p>
      {problem && <p role="alert">{problem}</p>}
      {picture && (
        <div data-figures data-behind={stale || undefined}>
          <Beside picture={picture} passes={cell.passes} />
          {picture.paths.length > 0 && (
            <Others
              title="Its paths"
              rows={picture.paths.map(({ name, figures, stands }) => ({
                name: stands ? `${name}, as it stands` : name,
                figures,
              }))}
            />
          )}
          {picture.without.length > 0 && (
            <Others
              title="What ignoring a small capacitor would have said"
              rows={[
                { name: 'with all of them', figures: picture.solved },
                ...picture.without.map(({ part, figures }) => ({
                  name: `without ${names.get(part) ?? part}`,
                  figures,
                })),
              ]}
            />
          )}
          {picture.reasons.map((reason) => (
            <div key={reason.of} className={styles.row}>
              <div className={styles.of}>
                {reason.of
                  .split(' ')
                  .map((of) => names.get(of) ?? of)
                  .join(', ')}
              </div>
              <div>
                {reason.formula && (
                  <div className={styles.formula}>
                    <Tex formula={`\\displaystyle ${reason.formula}`} />
                  </div>
                )}
                {reason.numbers && (
                  <div className={styles.formula}>
                    <Tex formula={`\\displaystyle ${reason.numbers}`} />
                  </div>
                )}
                <p>{reason.text}</p>
                {reason.rule && <p className={styles.rule}>{reason.rule}</p>}
              </div>
            </div>
          ))}
        </div>
      )}
      {(
        [
          ['Control', cell.control],
          ['Bias', cell.bias],
          ['Not for', cell.avoid],
        ] as const
      ).map(([title, text]) => (
        <p key={title}>
          <b>{title}.</b> {text}
        </p>
      ))}
    </div>
  );
}

function Beside({
  picture: { textbook, solved },
  passes,
}: {
  picture: CellPicture;
  passes: 'peak' | undefined;
}) {
  const mark = usePreferences((p) => p.mark);
  const hz = (value: number | null | undefined) =>
    value === null || value === undefined
      ? 'none'
      : formatQuantity(value, 'hertz', { digits: 4, unit: true, mark });
  const q = (value: number | null | undefined) =>
    value === null || value === undefined
      ? 'no pair'
      : value < 0 || value === Infinity
        ? 'sings'
        : formatFixed(value, 2, mark);
  const db = (value: number) => `${formatFixed(value, 2, mark)} dB`;
  const rows = [
    ['f₀', hz(textbook.f0Hz), hz(solved.pairHz ?? solved.halfPowerHz)],
    ['Q', q(textbook.q), q(solved.q)],
    [
      passes === 'peak' ? 'At its peak' : 'Where it passes',
      db(20 * Math.log10(Math.abs(textbook.gain))),
      db(passes === 'peak' ? solved.peakDb : solved.plateauDb),
    ],
    ...(textbook.loop !== undefined && textbook.singsAt
      ? [
          [
            'Given back',
            `${formatFixed(textbook.loop, 2, mark)}, sings at ${formatFixed(textbook.singsAt.loop, 2, mark)}`,
            solved.stable ? 'does not sing' : 'sings',
          ],
        ]
      : []),
  ];
  return (
    <table className={styles.beside} aria-label="Textbook and solved">
      <thead>
        <tr>
          <th scope="col" aria-label="Figure" />
          <th scope="col">textbook</th>
          <th scope="col">solved, in its path</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(([name, said, is]) => (
          <tr key={name}>
            <th scope="row">{name}</th>
            <td>{said}</td>
            <td>{is}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** The figures of other settings of a cell, one line each. */
function Others({
  title,
  rows,
}: {
  title: string;
  rows: readonly { name: string; figures: FilterFigures }[];
}) {
  const mark = usePreferences((p) => p.mark);
  const hz = (value: number | null) =>
    value === null ? 'none' : formatQuantity(value, 'hertz', { digits: 4, unit: true, mark });
  return (
    <table className={styles.beside} aria-label={title}>
      <thead>
        <tr>
          <th scope="col">{title}</th>
          <th scope="col">corner</th>
          <th scope="col">f₀</th>
          <th scope="col">Q</th>
          <th scope="col">passes</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ name, figures: f }) => (
          <tr key={name}>
            <th scope="row">{name}</th>
            <td>{hz(f.halfPowerHz)}</td>
            <td>{hz(f.pairHz)}</td>
            <td>{f.q === null ? 'no pair' : f.q < 0 ? 'sings' : formatFixed(f.q, 2, mark)}</td>
            <td>{formatFixed(f.plateauDb, 1, mark)} dB</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
