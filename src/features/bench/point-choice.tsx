import { listed } from '@/core/bench/place-words';
import { Select } from 'antd';
import { useMemo } from 'react';
import { innerNets, pointKey, type Point } from '@/core/bench/points';
import { shownName } from '@/core/bench/board-circuit';
import { ReedError } from '@/core/errors';
import type { Sheet } from '@/core/sheet/schema';

interface PointChoiceProps {
  sheet: Sheet;
  of: Point;
  /** Whether it can be what the source sees. */
  withImpedance?: boolean;
  onPoint: (of: Point) => void;
}

/** What of a board is measured: its output, an inner net, or what it is to its source. */
export function PointChoice({ sheet, of, withImpedance = false, onPoint }: PointChoiceProps) {
  const points = useMemo(() => pointsOf(sheet, withImpedance), [sheet, withImpedance]);
  return (
    <Select
      aria-label="What is measured"
      showSearch
      optionFilterProp="label"
      value={pointKey(of)}
      options={points.map(({ label, point }) => ({ label, value: pointKey(point) }))}
      onChange={(key) => onPoint(points.find(({ point }) => pointKey(point) === key)?.point)}
    />
  );
}

function pointsOf(sheet: Sheet, withImpedance: boolean): { label: string; point: Point }[] {
  return [
    { label: 'level at the output', point: undefined },
    ...netsOf(sheet).map(({ net, parts }) => ({
      label: pointWords(
        { is: 'level', net },
        parts.map((id) => shownName(sheet, id)),
      ),
      point: { is: 'level' as const, net },
    })),
    ...(withImpedance
      ? [{ label: pointWords({ is: 'impedance' }), point: { is: 'impedance' as const } }]
      : []),
  ];
}

/** What a take is of, in words. */
export function pointWords(of: Point, meeting: readonly string[] = []): string {
  if (of?.is === 'impedance') return 'impedance that the source sees';
  if (of?.net === undefined) return 'level at the output';
  return meeting.length > 0 ? `level where ${listed(meeting)} meet` : `level at ${of.net}`;
}

/** What takes of a sheet are of, in words. */
export function usePointWords(sheet: Sheet): (of: Point) => string {
  return useMemo(() => {
    const nets = new Map(netsOf(sheet).map(({ net, parts }) => [net, parts]));
    return (of) =>
      pointWords(
        of,
        of?.is === 'level' && of.net !== undefined
          ? nets.get(of.net)?.map((id) => shownName(sheet, id))
          : [],
      );
  }, [sheet]);
}

/** A sheet that cannot be solved has no nets to choose among; what is wrong with it is said elsewhere. */
function netsOf(sheet: Sheet) {
  try {
    return innerNets(sheet);
  } catch (error) {
    if (error instanceof ReedError) return [];
    throw error;
  }
}
