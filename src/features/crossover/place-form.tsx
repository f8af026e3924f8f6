import { Checkbox, InputNumber } from 'antd';
import { driverEnd } from '@/core/crossover/crossover-design';
import type { Crossover } from '@/core/sheet/crossover-schema';
import type { Sheet } from '@/core/sheet/schema';
import { MIDDLE, type Place } from '@/core/speaker/place';
import type { Surroundings } from '@/core/speaker/surroundings';
import { attempt } from '../shell/tell';
import { changeCrossover, changeDriver } from './actions';
import styles from './place-form.module.css';

const AXES = [
  { name: 'xMetres', word: 'to its right' },
  { name: 'yMetres', word: 'up' },
  { name: 'zMetres', word: 'forward' },
] as const;

/** Where drivers and listener are, and what stands around them. */
export function PlaceForm({ sheet, crossover }: { sheet: Sheet; crossover: Crossover }) {
  const { listen, surroundings = {} } = crossover;
  const around = (change: Partial<Surroundings>) => {
    const next = { ...surroundings, ...change };
    const left = Object.entries(next).filter(([, value]) => value !== undefined);
    attempt(() =>
      changeCrossover({
        surroundings: left.length > 0 ? Object.fromEntries(left) : undefined,
      }),
    );
  };
  const { baffle, floor, wall } = surroundings;
  return (
    <div className={styles.form}>
      <table className={styles.places}>
        <thead>
          <tr>
            <th scope="col">Place</th>
            {AXES.map(({ name, word }) => (
              <th key={name} scope="col">
                {word}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          <Row
            name="listener"
            place={listen}
            unit="m"
            onChange={(place) => changeCrossover({ listen: place })}
          />
          {sheet.ways.map((way) => (
            <Row
              key={way.id}
              name={way.name}
              place={driverEnd(way).place ?? MIDDLE}
              unit="mm"
              onChange={(place) => changeDriver(way.id, { place })}
            />
          ))}
        </tbody>
      </table>
      <p>
        From the middle of the front. A driver’s own place is that of its acoustic centre: below
        zero where it lies behind the front.
      </p>
      <label>
        <Checkbox
          checked={baffle !== undefined}
          onChange={(e) => around({ baffle: e.target.checked ? { widthMetres: 0.22 } : undefined })}
        >
          Baffle step, width
        </Checkbox>
        <Metres
          label="Baffle width"
          disabled={!baffle}
          value={baffle?.widthMetres ?? 0.22}
          unit="mm"
          onChange={(widthMetres) => around({ baffle: { widthMetres } })}
        />
      </label>
      <label>
        <Checkbox
          checked={floor !== undefined}
          onChange={(e) =>
            around({ floor: e.target.checked ? { belowMetres: 0.9, returns: RETURNS } : undefined })
          }
        >
          Floor, below by
        </Checkbox>
        <Metres
          label="Floor below"
          disabled={!floor}
          value={floor?.belowMetres ?? 0.9}
          unit="m"
          onChange={(belowMetres) => around({ floor: { ...floor!, belowMetres } })}
        />
      </label>
      <label>
        <Checkbox
          checked={wall !== undefined}
          disabled={!baffle}
          onChange={(e) =>
            around({ wall: e.target.checked ? { behindMetres: 0.3, returns: RETURNS } : undefined })
          }
        >
          Wall, behind by
        </Checkbox>
        <Metres
          label="Wall behind"
          disabled={!wall || !baffle}
          value={wall?.behindMetres ?? 0.3}
          unit="m"
          onChange={(behindMetres) => around({ wall: { ...wall!, behindMetres } })}
        />
      </label>
      <p>
        Simple models: a step of first order, mirror images that send {RETURNS * 100} % back. No
        measured room. A wall sends back what goes around a baffle, and needs one.
      </p>
    </div>
  );
}

/** What part of the pressure comes back where nothing else is known. */
const RETURNS = 0.8;

function Row({
  name,
  place,
  unit,
  onChange,
}: {
  name: string;
  place: Place;
  unit: 'm' | 'mm';
  onChange: (place: Place) => void;
}) {
  return (
    <tr>
      <th scope="row">{name}</th>
      {AXES.map((axis) => (
        <td key={axis.name}>
          <Metres
            label={`${name}, ${axis.word}`}
            value={place[axis.name]}
            unit={unit}
            onChange={(x) => attempt(() => onChange({ ...place, [axis.name]: x }))}
          />
        </td>
      ))}
    </tr>
  );
}

function Metres({
  label,
  value,
  unit,
  disabled,
  onChange,
}: {
  label: string;
  value: number;
  unit: 'm' | 'mm';
  disabled?: boolean;
  onChange: (metres: number) => void;
}) {
  const per = unit === 'mm' ? 1000 : 1;
  return (
    <InputNumber<number>
      size="small"
      aria-label={`${label}, ${unit}`}
      value={Number((value * per).toFixed(3))}
      step={unit === 'mm' ? 1 : 0.1}
      disabled={disabled}
      suffix={unit}
      changeOnBlur
      onChange={(x) => {
        if (x !== null) onChange(x / per);
      }}
    />
  );
}
