import { create } from 'zustand';
import { ReedError, messageOf } from '@/core/errors';
import { stockOf, type ShopOffer } from '@/core/shop/offer';
import { buyIntoDrawer } from '@/store/drawer';
import { tell } from '../shell/tell';
import { orderFromShop, type Weather } from './shop-service';

export interface BasketItem {
  offer: ShopOffer;
  pieces: number;
}

interface Basket {
  items: readonly BasketItem[];
  ordering: boolean;
  problem: string | null;
  weather: Weather;
}

/** What is to be bought. */
export const useBasket = create<Basket>()(() => ({
  items: [],
  ordering: false,
  problem: null,
  weather: 'fair',
}));

/** Put pieces of an offer in; with a negative number some out again. */
export function putInBasket(offer: ShopOffer, pieces: number): void {
  useBasket.setState(({ items }) => {
    const there = items.find((i) => i.offer.id === offer.id);
    const wanted = (there?.pieces ?? 0) + pieces;
    const rest = items.filter((i) => i !== there);
    if (wanted <= 0) return { items: rest, problem: null };
    return {
      items: there
        ? items.map((i) => (i === there ? { ...i, pieces: wanted } : i))
        : [...rest, { offer, pieces: wanted }],
      problem: null,
    };
  });
}

/** What the basket costs. */
export const totalOf = (items: readonly BasketItem[]): number =>
  items.reduce((sum, { offer, pieces }) => sum + offer.price * pieces, 0);

/** Buy all of it; what arrives goes into the drawer. Nothing is half-bought. */
export async function buyBasket(): Promise<void> {
  const { items, weather } = useBasket.getState();
  if (items.length === 0) return;
  useBasket.setState({ ordering: true, problem: null });
  try {
    const receipt = await orderFromShop(
      { items: items.map(({ offer: { id }, pieces }) => ({ id, pieces })) },
      weather,
    );
    if (receipt.lacking.length > 0) {
      const names = receipt.lacking.map(({ id, pieces }) => {
        const name = items.find((i) => i.offer.id === id)?.offer.name ?? id;
        return pieces === 0 ? `no ${name}` : `only ${pieces} of ${name}`;
      });
      throw new ReedError(
        'range',
        `The shop has ${names.join(', ')}: nothing was ordered. Take fewer, or another.`,
      );
    }
    await buyIntoDrawer(
      receipt.delivered.map(({ offer, pieces }) => stockOf(offer, pieces)),
      receipt.total,
    );
    useBasket.setState({ items: [] });
    tell(`Bought for ${receipt.total.toFixed(2)}: all of it lies in the drawer.`);
  } catch (error) {
    if (!(error instanceof ReedError)) throw error;
    useBasket.setState({ problem: messageOf(error) });
  } finally {
    useBasket.setState({ ordering: false });
  }
}
