import {
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type SensorDescriptor,
} from '@dnd-kit/core';
import { sortableKeyboardCoordinates } from '@dnd-kit/sortable';
import { useSteady } from './use-alike';

// The same objects always: new ones would draw every card again.
const BY_POINTER = { activationConstraint: { distance: 6 } };
const BY_KEYS = { coordinateGetter: sortableKeyboardCoordinates };

/**
 * How cards in a row are dragged. The list stays the same while its order does.
 *
 * @param by keys too where a card does nothing else with Enter and the space bar
 */
export function useSorting(
  ids: string[],
  by: 'pointer' | 'pointer and keys',
): { sensors: SensorDescriptor<object>[]; items: string[] } {
  const pointer = useSensor(PointerSensor, BY_POINTER);
  const keys = useSensor(KeyboardSensor, BY_KEYS);
  const sensors = useSensors(pointer, by === 'pointer' ? null : keys);
  return { sensors, items: useSteady(ids) };
}
