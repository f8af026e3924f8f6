import { Button } from 'antd';
import { TIERS, type TierResult } from '@/core/crossover/board/tiers';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { FigureTable, type FigureColumns } from '@/ui/controls/figure-table';
import { attempt } from '../../shell/tell';
import { LensState } from '../../sheet/lens-state';
import { useLens } from '../../sheet/use-lens';
import { takeTier } from '../board-actions';
import table from '../../sheet/readings-table.module.css';
import panel from '../lens-panel.module.css';
import styles from './board.module.css';

/** What parts of several qualities cost, and what they do to the sum. */
export function Tiers({ sheet }: { sheet: Sheet }) {
  const mark = usePreferences((p) => p.mark);
  const { picture, problem, stale } = useLens(sheet, { lens: 'crossoverTiers' });
  const tierOf = (id: string) => TIERS.find((t) => t.id === id)!;
  const columns: FigureColumns<TierResult> = [
    {
      key: 'id',
      title: 'Parts',
      rowScope: 'row',
      render: (_, { id }) => `${tierOf(id).words}: ${tierOf(id).about}`,
      className: styles.about,
    },
    {
      key: 'cost',
      title: 'cost, about',
      align: 'right',
      render: (_, { cost }) => formatFixed(cost, 0, mark),
    },
    {
      key: 'copper',
      title: 'copper',
      align: 'right',
      render: (_, { copperKilograms }) => `${formatFixed(copperKilograms, 2, mark)} kg`,
    },
    {
      key: 'ohms',
      title: 'largest coil',
      align: 'right',
      render: (_, { mostOhms }) =>
        formatQuantity(mostOhms, 'ohms', { unit: true, mark, digits: 2 }),
    },
    {
      key: 'within',
      title: 'on axis',
      align: 'right',
      render: (_, { withinDb }) => `±${formatFixed(withinDb, 2, mark)} dB`,
    },
    {
      key: 'take',
      title: '',
      align: 'right',
      render: (_, { id }) => (
        <Button
          size="small"
          aria-label={`Take ${tierOf(id).words} parts`}
          onClick={() => attempt(() => takeTier(tierOf(id)))}
        >
          Take
        </Button>
      ),
    },
  ];
  return (
    <LensState problem={problem ?? picture?.problem ?? null} stale={stale}>
      <div className={`${table.host} ${panel.table}`}>
        <FigureTable<TierResult>
          rowKey={(t) => t.id}
          columns={columns}
          lines={picture?.tiers ?? []}
          empty="Working it out …"
        />
        <p className={panel.model}>
          Values stay; coils and capacitors are of other build. Steel saturates: see what the coil’s
          current may be under the network.
        </p>
      </div>
    </LensState>
  );
}
