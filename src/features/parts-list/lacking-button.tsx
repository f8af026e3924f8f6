import { Button } from 'antd';
import { useState } from 'react';
import { messageOf, ReedError } from '@/core/errors';
import type { LineOnHand } from '@/core/sheet/parts-on-hand';
import { putInBasket, useBasket } from '../drawer/basket';
import { askShop } from '../drawer/shop-service';
import { useGo } from '../shell/leave-guard';
import { refuse, tell } from '../shell/tell';

/** A value that is this near, as a factor, is the one that is wanted. */
const SAME = 1.002;

/** Put what is lacking into the shop’s basket, as far as the shop has it. */
export function LackingButton({
  lines,
}: {
  lines: readonly Pick<LineOnHand, 'line' | 'lacking'>[];
}) {
  const [asking, setAsking] = useState(false);
  const go = useGo();
  const lacking = lines.filter((l) => l.lacking > 0);
  const collect = async () => {
    setAsking(true);
    const without: string[] = [];
    try {
      for (const { line, lacking: pieces } of lacking) {
        const { kind, value, device } = line;
        const { offers } = await askShop(
          { text: device ?? '', kind, ...(value === undefined ? {} : { value }) },
          useBasket.getState().weather,
        );
        const offer = offers.find(
          (o) =>
            o.pieces >= pieces &&
            (value === undefined || Math.abs(Math.log(o.value! / value)) < Math.log(SAME)) &&
            (line.peakVolts ?? 0) <= (o.ratedVolts ?? Infinity) &&
            (line.watts ?? 0) < (o.ratedWatts ?? Infinity),
        );
        if (offer) putInBasket(offer, pieces);
        else without.push(line.names[0]);
      }
      if (without.length < lacking.length) {
        tell('What is lacking lies in the basket: look at it in the shop.');
        go('/drawer');
      }
      if (without.length > 0)
        refuse(`The shop has nothing, or not enough, for ${without.join(', ')}.`);
    } catch (error) {
      if (!(error instanceof ReedError)) throw error;
      refuse(messageOf(error));
    } finally {
      setAsking(false);
    }
  };
  return (
    <Button
      type="primary"
      disabled={lacking.length === 0}
      loading={asking}
      onClick={() => void collect()}
    >
      Buy what is lacking
    </Button>
  );
}
