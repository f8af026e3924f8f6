import { lowPassPrototype, prototypeMagnitude } from '@/core/response/prototypes';
import { REFERENCE_PASCALS } from '../air';
import { GROUND_NET, type AcousticEdge, type SpeakerDocument, type WayTarget } from '../document';
import { heardAround } from '../heard-around';
import { prepareUnit } from '../unit';

/** A way with a shape to follow, over the band of its target. */
export interface ShapedWay {
  /** The net that drives it. */
  net: string;
  /** Level of its unit at the listening place for a volt there. */
  soundDb: Float64Array;
  /** The shape, dB re its top, and where it counts. */
  shapeDb: Float64Array;
  counts: readonly boolean[];
  within: number;
}

/** So far below its top a way counts. */
const DOWN_TO = -18;

/**
 * A wish for one way, ready to be compared with what a circuit makes of it; nothing for a unit of
 * which neither terminal is at ground.
 */
export function shapedWay(
  { drivers, connections, listen, surroundings }: SpeakerDocument,
  { driver, highPass, lowPass, withinDb }: WayTarget,
  bandHz: Float64Array,
): ShapedWay[] {
  const { plus, minus } = connections.find((c) => c.driver === driver)!;
  if (plus !== GROUND_NET && minus !== GROUND_NET) return [];
  const own = drivers.find((d) => d.id === driver)!;
  const unit = prepareUnit(own);
  const soundDb = bandHz.map((hz) => {
    const heard = heardAround(unit, own.place, listen, hz, surroundings);
    const pascals = Math.hypot(heard.re, heard.im);
    return 20 * Math.log10(pascals / REFERENCE_PASCALS + 1e-30);
  });
  const shapeDb = bandHz.map((hz) => edgeDb(lowPass, hz) + edgeDb(highPass, hz, true));
  return [
    {
      net: plus === GROUND_NET ? minus : plus,
      soundDb,
      shapeDb,
      counts: Array.from(shapeDb, (db) => db > DOWN_TO),
      within: withinDb,
    },
  ];
}

function edgeDb(edge: AcousticEdge | undefined, hz: number, high = false): number {
  if (!edge) return 0;
  const w = high ? edge.hz / hz : hz / edge.hz;
  return 20 * Math.log10(prototypeMagnitude(lowPassPrototype(edge), w));
}
