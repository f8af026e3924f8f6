import { database } from './database';

let ready: Promise<void> | undefined;

/**
 * Resolves once the demo sheets have been put on a new shelf; begun by whoever asks first. What puts
 * them there is fetched only where they are not there yet.
 */
export function shelfReady(): Promise<void> {
  ready ??= begin();
  return ready;
}

async function begin(): Promise<void> {
  if (await database().facts.get('demo-seeded')) return;
  const { seedDemo } = await import('./seed-demo');
  await seedDemo();
}
