import 'fake-indexeddb/auto';
import { deserialize, serialize } from 'node:v8';
import { configure } from '@testing-library/react';

/*
 * What a browser has and the simulated one of component tests lacks. Such tests begin with
 * “@jest-environment jsdom” and import this first.
 */

// What comes by a lazy import is translated first, which takes its time on a busy machine: long enough for one
// that gets a tenth of a processor, since only what fails waits for it.
configure({ asyncUtilTimeout: 60_000 });

globalThis.structuredClone ??= <T>(value: T): T => deserialize(serialize(value)) as T;

class Observer {
  observe = () => undefined;
  unobserve = () => undefined;
  disconnect = () => undefined;
}
globalThis.ResizeObserver ??= Observer as unknown as typeof ResizeObserver;
globalThis.matchMedia ??= (query: string) =>
  ({
    matches: false,
    media: query,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
    addListener: () => undefined,
    removeListener: () => undefined,
  }) as unknown as MediaQueryList;
for (const missing of ['scrollIntoView', 'setPointerCapture', 'releasePointerCapture'])
  if (!(missing in Element.prototype))
    Object.defineProperty(Element.prototype, missing, { value: () => undefined });

/** Node's own would keep the process alive. */
class Channel {
  port1 = { onmessage: null as (() => void) | null, close: () => undefined };
  port2 = {
    postMessage: () => void setTimeout(() => this.port1.onmessage?.(), 0),
    close: () => undefined,
  };
}
globalThis.MessageChannel ??= Channel as unknown as typeof MessageChannel;

/** Pseudo-elements are not drawn, and asking for their style is complained of. */
const styleOf = globalThis.getComputedStyle.bind(globalThis);
globalThis.getComputedStyle = (element) => styleOf(element);

/** Nothing is drawn here: the component library's styles need not be parsed, which takes long. */
const create = document.createElement.bind(document);
document.createElement = (name: string, options?: ElementCreationOptions) => {
  const element = create(name, options);
  if (name.toLowerCase() === 'style') element.setAttribute('type', 'text/plain');
  return element;
};
