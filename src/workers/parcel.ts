/**
 * Objects that go back and forth between the page and a worker, sent once and named by number from
 * then on: what is the same object on one side is the same object on the other. Objects are never
 * changed, only made anew, so that a number always means the same.
 */
export interface Parcel<T> {
  /** What is sent, numbers standing for pieces. */
  body: T;
  /** Pieces that the other side does not have. */
  fresh: [number, object][];
}

/** Numbers pieces, for one receiver. Every parcel made must arrive, in order. */
export class Packer {
  private readonly numbers = new WeakMap<object, number>();
  private count = 0;
  /** What the other side has: the pieces of the last parcel. */
  private there = new Set<number>();

  /** @param write makes the body, handing every piece to `piece` for its number */
  pack<T>(write: (piece: (whole: object) => number) => T): Parcel<T> {
    const fresh: [number, object][] = [];
    const used = new Set<number>();
    const body = write((whole) => {
      let number = this.numbers.get(whole);
      if (number === undefined) this.numbers.set(whole, (number = ++this.count));
      if (!used.has(number) && !this.there.has(number)) fresh.push([number, whole]);
      used.add(number);
      return number;
    });
    this.there = used;
    return { body, fresh };
  }
}

/** Puts pieces back in the place of their numbers, for one sender. */
export class Unpacker {
  private pieces = new Map<number, object>();

  /** @param read makes the whole from the body, asking `piece` for what a number stands for */
  unpack<T, R>({ body, fresh }: Parcel<T>, read: (body: T, piece: (n: number) => object) => R): R {
    const used = new Map<number, object>();
    const arrived = new Map(fresh);
    const whole = read(body, (number) => {
      const piece = arrived.get(number) ?? this.pieces.get(number);
      if (!piece) throw new Error(`Piece ${number} never arrived.`);
      used.set(number, piece);
      return piece;
    });
    this.pieces = used;
    return whole;
  }
}
