import type { Output, SheetDesign, Stage, Way } from './schema';
import { heardOf, netOfPort } from './stage';

/*
 * What the nets of a sheet's circuit are called. The first way's keep their bare names, those of
 * further ways stand behind their way's.
 */

type Ways = Pick<SheetDesign, 'ways'>;

/** What stands before the names of a way's nets and parts. */
export const prefixOf = ({ ways }: Ways, way: number): string =>
  way === 0 ? '' : `${ways[way].id}:`;

/** Net at the end of a way. */
export const outNet = (design: Ways, way = 0): string => `${prefixOf(design, way)}out`;

/** A net of a stage's drawing within the circuit of its sheet, but for its main input. */
export function netInStage(design: Ways, way: number, stage: Stage, local: string): string {
  const heard = heardOf(stage).net === local;
  return heard && isLast(design.ways[way], stage)
    ? outNet(design, way)
    : `${prefixOf(design, way)}${stage.id}.${local}`;
}

/** Net of an output of a stage; nothing where there is no such stage or port, or it is bypassed. */
export function portNet(design: Ways, way: number, stageId: string, port?: string) {
  const stage = design.ways[way]?.stages.find((s) => s.id === stageId);
  const local = stage && !stage.bypassed ? netOfPort(stage, port) : undefined;
  return stage && local !== undefined ? netInStage(design, way, stage, local) : undefined;
}

/** The way and the net that an output names, seen from a way. */
export function outputNet(
  design: Ways,
  { way: id, stage, port }: Output,
  from = 0,
): { way: number; net: string } | undefined {
  const way = id === undefined ? from : design.ways.findIndex((w) => w.id === id);
  const net = way < 0 ? undefined : portNet(design, way, stage, port);
  return net === undefined ? undefined : { way, net };
}

function isLast({ stages }: Way, stage: Stage): boolean {
  const active = stages.filter((s) => !s.bypassed);
  return active[active.length - 1]?.id === stage.id;
}
