'use client';

import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { mainHz } from '@/core/design/ask';
import type { MapPicture, StagePole } from '@/core/lenses/map';
import { formatQuantity } from '@/core/quantity/format';
import type { Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { useSize } from '@/ui/chart/use-size';
import { attempt, unsay } from '../shell/tell';
import { retargetStage } from './actions/targets';
import { LensState } from './lens-state';
import { useLens } from './use-lens';
import styles from './map-lens.module.css';

/** Poles and zeros in the s plane, in hertz; a stage's pair can be taken hold of and moved. */
export function MapLens({ sheet }: { sheet: Sheet }) {
  const { picture, problem, stale } = useLens(sheet, { lens: 'map' });
  const [host, size] = useSize<HTMLDivElement>();
  const atZero = picture?.layers.layers.find((l) => l.value.atZero)?.value.atZero;
  return (
    <LensState problem={problem ?? picture?.layers.problems[0] ?? null} stale={stale}>
      <div className={styles.lens}>
        <div ref={host} className={styles.host} data-picture>
          {!picture && !problem && <p>Looking for poles and zeros …</p>}
          {picture && size && size.height > 80 && (
            <Plane sheet={sheet} picture={picture} {...size} />
          )}
        </div>
        {picture && (
          <p className={styles.note}>
            {picture.layers.layers.some((l) => l.value.verdict === 'unstable') && (
              <b>A pole lies right of the axis: this circuit oscillates. </b>
            )}
            {atZero && <b>A pole lies at zero: what is stored there stays. {atZero} </b>}× poles, ○
            zeros. Drag a ringed pair, or step to its f₀ or its Q with Tab and turn it with the
            arrow keys. The stage is designed anew.
          </p>
        )}
      </div>
    </LensState>
  );
}

interface PlaneProps {
  sheet: Sheet;
  picture: MapPicture;
  width: number;
  height: number;
}

function Plane({ sheet, picture, width, height }: PlaneProps) {
  const mark = usePreferences((p) => p.mark);
  const svg = useRef<SVGSVGElement>(null);
  const [dragged, setDragged] = useState<StagePole | null>(null);
  const reach = reachOf(sheet, picture);
  const unit = height / 2 / reach; // pixels a hertz, the same both ways
  const originX = width * 0.62;
  const originY = height / 2;
  const x = (hz: number) => originX + hz * unit;
  const y = (hz: number) => originY - hz * unit;
  const hz = (value: number) => formatQuantity(value, 'hertz', { unit: true, digits: 3, mark });

  // One message, whichever way and however often it is refused; it goes when a move is taken.
  const retarget = (pole: StagePole, group: string) => {
    if (
      attempt(
        () => retargetStage(pole.stageId, { f0Hz: pole.f0Hz, q: pole.q }, group),
        'map-refused',
      )
    )
      unsay('map-refused');
  };
  const frame = useRef(0);
  /** At most one design a frame, for wherever the pointer is by then. */
  const retargetSoon = (pole: StagePole) => {
    cancelAnimationFrame(frame.current);
    frame.current = requestAnimationFrame(() => retarget(pole, `pole ${pole.stageId}`));
  };
  const poleAt = (event: PointerEvent, stageId: string): StagePole => {
    const box = svg.current!.getBoundingClientRect();
    const re = Math.min(-reach * 1e-3, (event.clientX - box.left - originX) / unit);
    const im = (originY - (event.clientY - box.top)) / unit;
    const f0Hz = Math.hypot(re, im);
    return { stageId, f0Hz, q: Math.max(0.5, f0Hz / (-2 * re)) };
  };
  const onKey = (event: KeyboardEvent, pole: StagePole, figure: Figure) => {
    const step = event.shiftKey ? 1.1 : 1.02;
    const factor = { ArrowUp: step, ArrowRight: step, ArrowDown: 1 / step, ArrowLeft: 1 / step }[
      event.key
    ];
    if (factor === undefined) return;
    event.preventDefault();
    retarget({ ...pole, [figure]: pole[figure] * factor }, `pole ${pole.stageId}`);
  };

  const rings = [0.25, 0.5, 0.75, 1].map((part) => roundTo(reach * part));
  return (
    <svg ref={svg} width={width} height={height} role="group" aria-label="Map of poles and zeros">
      {rings.map((r) => (
        <g key={r}>
          <circle cx={originX} cy={originY} r={r * unit} className={styles.ring} />
          <text x={originX + 5} y={y(r) + 12} className={styles.tick}>
            {hz(r)}
          </text>
        </g>
      ))}
      <line x1={0} x2={width} y1={originY} y2={originY} className={styles.axis} />
      <line x1={originX} x2={originX} y1={0} y2={height} className={styles.axis} />
      {picture.layers.layers.map(({ id, value }) => (
        <g key={id} className={styles[id === 'ideal' || id === 'built' ? id : 'keep']}>
          {value.zeros.map((z, i) => (
            <circle
              key={i}
              cx={x(z.re / TWO_PI)}
              cy={y(z.im / TWO_PI)}
              r={id === 'built' ? 6 : 4}
              fill="none"
            />
          ))}
          {value.poles.map((p, i) => {
            const r = id === 'built' ? 6 : 4;
            const [px, py] = [x(p.re / TWO_PI), y(p.im / TWO_PI)];
            return (
              <path
                key={i}
                d={`M${px - r} ${py - r}l${2 * r} ${2 * r}m0 ${-2 * r}l${-2 * r} ${2 * r}`}
              />
            );
          })}
          {id === 'ideal' &&
            value.poleFigures
              .filter((figures) => figures.multiplicity > 1)
              .flatMap((figures) =>
                figures.roots.map((p) => (
                  <text
                    key={`${p.re} ${p.im}`}
                    x={x(p.re / TWO_PI) + 9}
                    y={y(p.im / TWO_PI) - 7}
                    className={styles.tick}
                  >
                    {figures.multiplicity} times
                  </text>
                )),
              )}
        </g>
      ))}
      {picture.held.map((own) => {
        const pole = dragged?.stageId === own.stageId ? dragged : own;
        const re = -pole.f0Hz / (2 * pole.q);
        const im = pole.f0Hz * Math.sqrt(Math.max(0, 1 - 1 / (4 * pole.q * pole.q)));
        const number = sheet.ways[0].stages.findIndex((s) => s.id === pole.stageId) + 1;
        return (
          <g key={own.stageId} className={styles.held}>
            {FIGURES.map(({ id, name, least, most }) => (
              <circle
                key={id}
                cx={x(re)}
                cy={y(im)}
                r={12}
                className={styles.figure}
                role="slider"
                tabIndex={0}
                aria-label={`${name} of stage ${number}`}
                aria-valuemin={least}
                aria-valuemax={most}
                aria-valuenow={pole[id]}
                aria-valuetext={id === 'f0Hz' ? hz(pole.f0Hz) : pole.q.toPrecision(3)}
                onKeyDown={(e) => onKey(e, own, id)}
              />
            ))}
            <circle
              cx={x(re)}
              cy={y(im)}
              r={12}
              className={styles.handle}
              onPointerDown={(e) => {
                e.currentTarget.setPointerCapture(e.pointerId);
                setDragged(own);
              }}
              onPointerMove={(e) => {
                if (!dragged) return;
                const moved = poleAt(e, own.stageId);
                setDragged(moved);
                retargetSoon(moved);
              }}
              onPointerUp={() => setDragged(null)}
            />
            {FIGURES.map(({ id, sign }) => (
              <text key={id} x={x(re) - 18} y={y(im) - 10} className={styles.sign} data-of={id}>
                {sign}
              </text>
            ))}
          </g>
        );
      })}
    </svg>
  );
}

/** What is moved of a pole pair: each is a slider of its own. */
const FIGURES = [
  { id: 'f0Hz', name: 'f0', sign: 'f₀', least: 1e-3, most: 1e9 },
  { id: 'q', name: 'Q', sign: 'Q', least: 0.5, most: 200 },
] as const;
type Figure = (typeof FIGURES)[number]['id'];

const TWO_PI = 2 * Math.PI;
const roundTo = (x: number) => Number(x.toPrecision(2));

/** How far out the map goes: all pairs that can be held, and zeros near them. */
function reachOf(sheet: Sheet, { held, layers }: MapPicture): number {
  const ideal = layers.layers.find((l) => l.id === 'ideal')?.value;
  const near = mainHz(sheet.ask) * 6;
  const all = [
    ...held.map((p) => p.f0Hz),
    ...(ideal?.poleFigures ?? []).map((p) => p.f0Hz).filter((f) => f < near),
    ...(ideal?.zeroFigures ?? []).map((z) => z.f0Hz).filter((f) => f < near),
  ];
  return roundTo(Math.max(mainHz(sheet.ask), ...all) * 1.25);
}
