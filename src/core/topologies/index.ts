import { ReedError } from '@/core/errors';
import { bufferedRcHighPass } from './buffered-rc-high-pass';
import { bufferedRcLowPass } from './buffered-rc-low-pass';
import { gainHighPass } from './gain-high-pass';
import { gainLowPass } from './gain-low-pass';
import { multipleFeedbackLowPass } from './multiple-feedback-low-pass';
import { rcHighPass } from './rc-high-pass';
import { rcLowPass } from './rc-low-pass';
import type { Topology } from './topology';
import { unityHighPass } from './unity-high-pass';
import { unityLowPass } from './unity-low-pass';

/** Every topology. A new one is one file and one line here; the conformance test does the rest. */
export const TOPOLOGIES: readonly Topology[] = [
  rcLowPass,
  rcHighPass,
  bufferedRcLowPass,
  bufferedRcHighPass,
  unityLowPass,
  unityHighPass,
  gainLowPass,
  gainHighPass,
  multipleFeedbackLowPass,
];

/** @throws ReedError `design` listing the known ids */
export function topologyOf(id: string): Topology {
  const topology = TOPOLOGIES.find((t) => t.id === id);
  if (topology) return topology;
  throw new ReedError(
    'design',
    `No topology is called “${id}”. There are ${TOPOLOGIES.map((t) => t.id).join(', ')}.`,
  );
}
