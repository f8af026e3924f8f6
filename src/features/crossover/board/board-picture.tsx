import { Button, Checkbox, InputNumber, Segmented } from 'antd';
import { useMemo, useState } from 'react';
import { hasAmplifiers } from '@/core/crossover/active';
import { coilPairs } from '@/core/crossover/board/couplings';
import { boardOf, type BoardPart } from '@/core/crossover/board/layout';
import type { BoardPicture as BoardPictureData } from '@/core/crossover/board/picture';
import { buildSteps } from '@/core/crossover/board/steps';
import { wiringOf } from '@/core/crossover/board/wiring';
import { isCrossover, type CrossoverDesign } from '@/core/crossover/crossover-design';
import { formatFixed, formatQuantity, formatSigned } from '@/core/quantity/format';
import type { Sheet } from '@/core/sheet/schema';
import { useSolvedSheet } from '@/store/open-library';
import { usePreferences } from '@/store/preferences';
import { useLens } from '../../sheet/use-lens';
import { attempt } from '../../shell/tell';
import { countCoupling, layPart, sizeBoard } from '../board-actions';
import type { CrossoverLensProps } from '../lenses/lens';
import { BoardDrawing, keyOf, roomWords } from './board-drawing';
import { Tiers } from './tiers';
import panel from '../lens-panel.module.css';
import styles from './board.module.css';

type Shown = 'board' | 'wiring' | 'steps' | 'tiers';
const CHOICES = [
  { value: 'board' as const, label: 'Board' },
  { value: 'wiring' as const, label: 'Wiring' },
  { value: 'steps' as const, label: 'Steps' },
  { value: 'tiers' as const, label: 'Cost' },
];

/** How a passive crossover is built. */
export function BoardPicture({ sheet }: CrossoverLensProps) {
  const [shown, show] = useState<Shown>('board');
  const solved = useSolvedSheet(sheet);
  if (!isCrossover(solved)) return null;
  if (hasAmplifiers(solved))
    return (
      <p className={panel.waiting}>
        Boards of op-amps are built from the parts list, one for each channel; this is for coils and
        capacitors behind an amplifier.
      </p>
    );
  return (
    <div className={panel.stack}>
      <div className={panel.choice}>
        <Segmented<Shown>
          size="small"
          aria-label="Of the board"
          value={shown}
          options={CHOICES}
          onChange={show}
        />
      </div>
      {shown === 'board' && <Laid sheet={sheet} solved={solved} />}
      {shown === 'wiring' && (
        <ol className={styles.list} aria-label="Wiring">
          {wiringOf(solved).map(({ name, ends }) => (
            <li key={name}>
              <b>{name}:</b> {ends.join(' – ')}
            </li>
          ))}
        </ol>
      )}
      {shown === 'steps' && (
        <ol className={styles.list} aria-label="Steps">
          {buildSteps(solved).map(({ id, text, caution }) => (
            <li key={id}>
              {text}
              {caution && <small>{caution}</small>}
            </li>
          ))}
        </ol>
      )}
      {shown === 'tiers' && <Tiers sheet={sheet} />}
    </div>
  );
}

/** The board with its parts, and beside it what the coils share and what that does. */
function Laid({ sheet, solved }: { sheet: Sheet; solved: Sheet & CrossoverDesign }) {
  const [selected, select] = useState<string | null>(null);
  const { picture, problem, stale } = useLens(sheet, { lens: 'crossoverBoard' });
  const { board, parts } = useMemo(() => boardOf(solved), [solved]);
  const chosen = parts.find((p) => keyOf(p) === selected);
  const lay = (part: BoardPart, change: Partial<BoardPart>) => attempt(() => layPart(part, change));
  const why = problem ?? picture?.problem ?? null;
  return (
    <div className={styles.columns}>
      <div className={styles.left}>
        <BoardDrawing
          board={board}
          parts={parts}
          pairsOf={coilPairs}
          selected={selected}
          onSelect={select}
          onMove={(part, xMetres, yMetres) => lay(part, { xMetres, yMetres })}
        />
      </div>
      <div className={styles.side}>
        <Checkbox
          checked={board.coupled}
          onChange={(e) => attempt(() => countCoupling(e.target.checked))}
        >
          Coupling counts in all lenses
        </Checkbox>
        {why !== null && <p role="alert">{why}</p>}
        {picture && picture.coupledDb.length > 0 && (
          <Shared
            picture={picture}
            late={stale}
            onTurn={(turn) => {
              const part = parts.find((p) => keyOf(p) === keyOf(turn));
              if (part) lay(part, { lies: turn.lies, degrees: turn.degrees });
            }}
          />
        )}
        {chosen && <Chosen part={chosen} onLay={(change) => lay(chosen, change)} />}
        <label>
          Board
          <span>
            {(['widthMetres', 'heightMetres'] as const).map((side) => (
              <InputNumber<number>
                key={side}
                size="small"
                aria-label={side === 'widthMetres' ? 'Board width, mm' : 'Board height, mm'}
                value={Math.round(1000 * board[side])}
                step={10}
                onChange={(mm) => {
                  if (mm) attempt(() => sizeBoard({ [side]: mm / 1000 }));
                }}
              />
            ))}
          </span>
        </label>
        <p>Sizes of parts are about usual; a core carries more flux than is reckoned with here.</p>
      </div>
    </div>
  );
}

type Turn = BoardPictureData['turns'][number];

/** What the coils share, what that does, and how they are better turned; greyed while it is behind. */
function Shared({
  picture,
  late,
  onTurn,
}: {
  picture: BoardPictureData;
  late: boolean;
  onTurn: (turn: Turn) => void;
}) {
  const mark = usePreferences((p) => p.mark);
  return (
    <div className={styles.shared} data-late={late || undefined} aria-busy={late}>
      <p>
        On axis ±{formatFixed(picture.withinApartDb, 2, mark)} dB with the coils far apart, ±
        {formatFixed(picture.withinCoupledDb, 2, mark)} dB as they lie.
      </p>
      <ul aria-label="Pairs of coils">
        {picture.pairs.map(({ a, b, k, db, hz }) => (
          <li key={`${a} ${b}`}>
            {a} and {b}: {formatFixed(100 * Math.abs(k), 2, mark)} %, {formatSigned(db, mark, 2)} dB
            at {formatQuantity(hz, 'hertz', { unit: true, mark, digits: 2 })}
          </li>
        ))}
      </ul>
      {picture.turns.map((turn) => (
        <p key={keyOf(turn)}>
          {turn.name} {turn.lies === 'flat' ? 'flat' : `on its edge at ${turn.degrees}°`} shares{' '}
          {formatFixed(100 * turn.shares, 2, mark)} % instead of{' '}
          {formatFixed(100 * turn.shared, 2, mark)} %.{' '}
          <Button size="small" onClick={() => onTurn(turn)}>
            Turn {turn.name}
          </Button>
        </p>
      ))}
    </div>
  );
}

/** How the chosen part lies. */
function Chosen({ part, onLay }: { part: BoardPart; onLay: (change: Partial<BoardPart>) => void }) {
  return (
    <>
      <p>
        <b>{part.name}</b>, {roomWords(part)}
      </p>
      {part.coil && (
        <Segmented
          size="small"
          aria-label={`${part.name} lies`}
          value={part.lies}
          options={[
            { value: 'flat' as const, label: 'flat' },
            { value: 'edge' as const, label: 'on its edge' },
          ]}
          onChange={(lies) => onLay({ lies })}
        />
      )}
      {(!part.coil || part.lies === 'edge') && (
        <label>
          Turned by
          <InputNumber<number>
            size="small"
            aria-label={`${part.name} turned by, degrees`}
            value={part.degrees}
            min={0}
            max={360}
            step={5}
            suffix="°"
            onChange={(degrees) => {
              if (degrees !== null) onLay({ degrees });
            }}
          />
        </label>
      )}
    </>
  );
}
