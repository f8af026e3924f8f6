import { netsOf, makeCircuit, readCircuit, type Circuit, type Part } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import { quoted } from '@/core/text';
import { AMP_NET, GROUND_NET, type SpeakerDocument } from './document';
import { terminalParts } from './unit';

/** The source behind the amplifier's resistance: one volt, so that voltages are a volt of drive. */
export const DRIVE = 'drive';

/** What stands in front of the parts and nets of a unit, by its place among the units. */
const unitPrefix = (index: number): string => `unit.${index + 1}`;

/**
 * The whole circuit of a speaker: amplifier, network, and every unit as its terminals see it.
 *
 * @throws ReedError `circuit` for a network that cannot be wired
 */
export function speakerCircuit(document: SpeakerDocument): Circuit {
  const { drive, network, connections, title } = document;
  const top = drive.sourceOhms > 0 ? DRIVE : AMP_NET;
  const own: Part[] = [
    { id: DRIVE, kind: 'voltage-source', plus: top, minus: GROUND_NET, acVolts: 1 },
  ];
  if (drive.sourceOhms > 0)
    own.push({ id: `${DRIVE}.ohms`, kind: 'resistor', a: top, b: AMP_NET, ohms: drive.sourceOhms });
  const nets = new Set([AMP_NET, GROUND_NET, ...netsOf(makeCircuit(network))]);
  const reserved = [...nets].find((net) => net === DRIVE || net.startsWith('unit.'));
  if (reserved !== undefined)
    throw new ReedError(
      'circuit',
      `The network has a net ${quoted(reserved)}; that name is kept for the amplifier and the drivers: call it otherwise.`,
      { net: reserved },
    );
  const loads = connections.flatMap(({ driver, plus, minus }): Part[] => {
    for (const net of [plus, minus])
      if (!nets.has(net))
        throw new ReedError(
          'circuit',
          `The driver ${quoted(driver)} hangs on net ${quoted(net)}, which no part of the network touches.`,
          { net },
        );
    if (plus === minus)
      throw new ReedError(
        'circuit',
        `Both terminals of the driver ${quoted(driver)} hang on net ${quoted(plus)}.`,
        { net: plus },
      );
    const index = document.drivers.findIndex((d) => d.id === driver);
    return terminalParts(document.drivers[index], { id: unitPrefix(index), plus, minus });
  });
  return readCircuit(makeCircuit([...own, ...network, ...loads], title, GROUND_NET));
}
