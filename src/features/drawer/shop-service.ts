import type * as z from 'zod';
import { ReedError } from '@/core/errors';
import {
  shopAnswerSchema,
  shopReceiptSchema,
  type ShopAnswer,
  type ShopOrder,
  type ShopReceipt,
} from '@/core/shop/offer';
import type { ShopQuery } from '@/core/shop/shop';

/** What the simulated shop does to try a person’s patience. */
export const WEATHERS = ['fair', 'slow', 'failing', 'garbled', 'sold-out'] as const;
export type Weather = (typeof WEATHERS)[number];

/** An answer that takes longer is given up, milliseconds. */
const PATIENCE = 10_000;

/**
 * Ask the shop what it has.
 *
 * @throws ReedError `document` in words, whatever went wrong; `stopped` when it is no longer wanted
 */
export function askShop(
  { text, kind, value }: ShopQuery,
  weather: Weather,
  signal?: AbortSignal,
): Promise<ShopAnswer> {
  const query = new URLSearchParams({
    q: text,
    ...(kind === undefined ? {} : { kind }),
    ...(value === undefined ? {} : { value: String(value) }),
    ...(weather === 'fair' ? {} : { weather }),
  });
  return call(`/api/shop?${query.toString()}`, {}, shopAnswerSchema, signal);
}

/** Order from the shop; as `askShop`. */
export const orderFromShop = (order: ShopOrder, weather: Weather): Promise<ShopReceipt> =>
  call(
    `/api/shop${weather === 'fair' ? '' : `?weather=${weather}`}`,
    {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(order),
    },
    shopReceiptSchema,
  );

async function call<T>(
  url: string,
  init: RequestInit,
  schema: z.ZodType<T>,
  signal?: AbortSignal,
): Promise<T> {
  const given = AbortSignal.timeout(PATIENCE);
  const either = signal ? AbortSignal.any([signal, given]) : given;
  let response: Response;
  try {
    response = await fetch(url, { ...init, signal: either });
  } catch {
    if (signal?.aborted) throw new ReedError('stopped', 'Stopped on request.');
    throw new ReedError(
      'document',
      given.aborted
        ? 'The shop has not answered within ten seconds: try again later.'
        : 'The shop cannot be reached: the program that serves these pages is not running, or the network is away.',
    );
  }
  if (!response.ok)
    throw new ReedError(
      'document',
      `The shop answers that something is wrong there (${response.status}): nothing was ordered; try again later.`,
    );
  let document: unknown;
  try {
    document = await response.json();
  } catch {
    throw new ReedError(
      'document',
      'The shop’s answer cannot be read: it is not what was agreed on.',
    );
  }
  const parsed = schema.safeParse(document);
  if (!parsed.success)
    throw new ReedError(
      'document',
      'The shop’s answer cannot be read: it is not what was agreed on.',
    );
  return parsed.data;
}
