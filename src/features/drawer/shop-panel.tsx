import { Button, Input, Select, Spin } from 'antd';
import { useEffect, useState } from 'react';
import { messageOf, ReedError } from '@/core/errors';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { ShopAnswer, ShopOffer } from '@/core/shop/offer';
import { usePreferences } from '@/store/preferences';
import { buyBasket, putInBasket, totalOf, useBasket } from './basket';
import { askShop, WEATHERS, type Weather } from './shop-service';
import styles from './drawer.module.css';

/** What the shop can be made to do. */
const WEATHER_WORDS: Record<Weather, string> = {
  fair: 'as usual',
  slow: 'answers slowly',
  failing: 'fails',
  garbled: 'answers nonsense',
  'sold-out': 'is nearly sold out',
};

/** A search is sent when typing has rested for so long, milliseconds. */
const REST = 250;

/** The simulated parts shop: look for parts, put them into the basket, buy them into the drawer. */
export function ShopPanel() {
  const weather = useBasket((b) => b.weather);
  const [text, setText] = useState('');
  const found = useSearch(text, weather);
  return (
    <section className={styles.shop} aria-label="Parts shop">
      <h2>Parts shop</h2>
      <p>
        Made up: nobody delivers. It stands in for an outside shop, and can be made to behave like
        one on a bad day.
      </p>
      <Input
        allowClear
        placeholder="4k7 metal film, 22n polypropylene, op-amp"
        aria-label="Look in the shop"
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      {found.asking && (
        <p role="status">
          <Spin size="small" /> The shop is being asked…
        </p>
      )}
      {found.problem !== null && (
        <p role="alert" className={styles.bad}>
          {found.problem}{' '}
          <Button size="small" onClick={found.again}>
            Ask again
          </Button>
        </p>
      )}
      {found.answer && <Offers answer={found.answer} />}
      <BasketList />
      <label className={styles.switches}>
        The shop today
        <Select<Weather>
          size="small"
          value={weather}
          options={WEATHERS.map((value) => ({ value, label: WEATHER_WORDS[value] }))}
          onChange={(value) => useBasket.setState({ weather: value })}
          style={{ width: 170 }}
        />
      </label>
    </section>
  );
}

interface Found {
  answer: ShopAnswer | null;
  problem: string | null;
  asking: boolean;
  again: () => void;
}

/** The answer to what is typed; an earlier question that is still under way is given up. */
function useSearch(text: string, weather: Weather): Found {
  const [state, setState] = useState<Omit<Found, 'again'>>({
    answer: null,
    problem: null,
    asking: false,
  });
  const [round, setRound] = useState(0);
  useEffect(() => {
    const stop = new AbortController();
    const ask = async () => {
      setState({ answer: null, problem: null, asking: true });
      try {
        const answer = await askShop({ text }, weather, stop.signal);
        if (!stop.signal.aborted) setState({ answer, problem: null, asking: false });
      } catch (error) {
        if (stop.signal.aborted) return;
        if (!(error instanceof ReedError)) throw error;
        setState({ answer: null, problem: messageOf(error), asking: false });
      }
    };
    const timer = setTimeout(() => {
      if (text.trim() === '') setState({ answer: null, problem: null, asking: false });
      else void ask();
    }, REST);
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
  }, [text, weather, round]);
  return { ...state, again: () => setRound(round + 1) };
}

const SHOWN = 12;

function Offers({ answer: { offers, more } }: { answer: ShopAnswer }) {
  if (offers.length === 0) return <p>The shop has nothing like that.</p>;
  const rest = more + Math.max(0, offers.length - SHOWN);
  return (
    <>
      <ul className={styles.offers} aria-label="What the shop has">
        {offers.slice(0, SHOWN).map((offer) => (
          <Offer key={offer.id} offer={offer} />
        ))}
      </ul>
      {rest > 0 && <p>and {rest} more: say it closer.</p>}
    </>
  );
}

function Offer({ offer }: { offer: ShopOffer }) {
  const mark = usePreferences((p) => p.mark);
  const { name, tolerance, ratedVolts, ratedWatts, price, pieces } = offer;
  const number = (x: number) => formatQuantity(x, 'ratio', { digits: 3, mark });
  const facts = [
    tolerance !== undefined && `${number(tolerance * 100)} %`,
    ratedVolts !== undefined && `${number(ratedVolts)} V`,
    ratedWatts !== undefined && `${number(ratedWatts)} W`,
    pieces === 0 ? 'sold out' : `${pieces} there`,
  ].filter(Boolean);
  return (
    <li>
      <span>
        {name}
        <small>{facts.join(', ')}</small>
      </span>
      <span className={styles.figure}>{formatFixed(price, 2, mark)}</span>
      <Button
        size="small"
        disabled={pieces === 0}
        aria-label={`Put ${name} into the basket`}
        onClick={() => putInBasket(offer, 1)}
      >
        +1
      </Button>
    </li>
  );
}

function BasketList() {
  const { items, ordering, problem } = useBasket();
  const mark = usePreferences((p) => p.mark);
  if (items.length === 0) return null;
  return (
    <div role="group" aria-label="Basket">
      <ul className={styles.offers}>
        {items.map(({ offer, pieces }) => (
          <li key={offer.id}>
            <span>
              {pieces} × {offer.name}
            </span>
            <span className={styles.figure}>{formatFixed(pieces * offer.price, 2, mark)}</span>
            <Button
              size="small"
              aria-label={`One ${offer.name} less`}
              onClick={() => putInBasket(offer, -1)}
            >
              −1
            </Button>
          </li>
        ))}
      </ul>
      <p className={styles.total}>
        <span>Together</span>
        <span className={styles.figure}>{formatFixed(totalOf(items), 2, mark)}</span>
      </p>
      {problem !== null && (
        <p role="alert" className={styles.bad}>
          {problem}
        </p>
      )}
      <Button type="primary" block loading={ordering} onClick={() => void buyBasket()}>
        Buy into the drawer
      </Button>
    </div>
  );
}
