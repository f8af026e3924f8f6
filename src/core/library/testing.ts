import type { DriverEntry } from './driver';
import type { StockEntry } from './stock';
import type { Take } from './take';

/** One entry of each kind, for tests. */
export const TAKE: Take = {
  format: 'jaunty-reed/take',
  version: 1,
  id: 't1',
  name: 'Board 1, on the bench',
  at: '2026-11-23T19:30:00.000Z',
  frequenciesHz: [100, 1000, 10000],
  levelDb: [0.1, -3.2, -39.5],
  phaseDegrees: [-8, -92, -171],
  note: '',
};

export const DRIVER: DriverEntry = {
  format: 'jaunty-reed/driver',
  version: 1,
  id: 'y1',
  name: 'Hall woofer',
  model: {
    fsHz: 52,
    qms: 4,
    qes: 0.4,
    reOhms: 5.6,
    leHenries: 0.8e-3,
    directivity: 'even',
  },
  note: '',
};

export const STOCK: StockEntry = {
  format: 'jaunty-reed/stock',
  version: 1,
  id: 'p1',
  name: '22n film',
  kind: 'capacitor',
  value: 22e-9,
  tolerance: 0.05,
  quantity: 10,
  note: '',
};
