import { type Facing } from '../piece';
import { type Booking, insert } from './booking';

const OPPOSITE: Readonly<Partial<Record<Facing, Facing>>> = {
  top: 'bottom',
  bottom: 'top',
  front: 'back',
  back: 'front',
  left: 'right',
  right: 'left',
};
/** How a piece stands before anything is done. */
const STANDS: Facing = 'top';

/** Which face of each body lies up, and what is wet on the others. */
export class Bodies {
  private readonly bodies = new Map<string, Booking[]>();

  /**
   * @param turn - how long turning takes [s]
   * @param canTurn - whether hands have time to turn the piece before a booking, with another put in first
   */
  constructor(
    private readonly turn: number,
    private readonly canTurn: (other: Booking, booking: Booking) => boolean,
  ) {}

  put(booking: Booking): void {
    const on = this.on(booking.body);
    this.bodies.set(booking.body, on);
    insert(on, booking);
    this.tellTurns(on);
  }

  remove(booking: Booking): void {
    const on = this.on(booking.body);
    on.splice(on.indexOf(booking), 1);
    this.tellTurns(on);
  }

  private on(body: string): Booking[] {
    return this.bodies.get(body) ?? [];
  }

  private tellTurns(on: readonly Booking[]): void {
    let up = STANDS;
    for (const booking of on) {
      booking.turned = booking.up !== up;
      ({ up } = booking);
    }
  }

  /** Which face lies up at a moment. */
  upBefore(body: string, at: number): Facing {
    return this.on(body).findLast(({ from }) => from <= at)?.up ?? STANDS;
  }

  /** The moment itself where the body can lie so, else the next to try. */
  free(body: string, up: Facing, at: number, pre: number): number {
    let free = at;
    for (const other of this.on(body)) {
      if (other.up === up) continue;
      if (other.from <= at) free = Math.max(free, this.turnsAfter(other, up) + pre);
    }
    return free;
  }

  /** When a body can be turned so that another face lies up. */
  private turnsAfter(laid: Booking, up: Facing): number {
    return Math.max(laid.until, OPPOSITE[laid.up] === up ? laid.lies : laid.tacky);
  }

  /** The moment itself where the hands are gone before anything on another face, else the next to try. */
  blockedLater(body: string, up: Facing, at: number, until: number): number {
    for (const other of this.on(body))
      if (other.from > at && other.up !== up && until > other.from - this.turn)
        return this.turnsAfter(other, up) + this.turn;
    return at;
  }

  /** The moment itself where what comes later on the body still can, else the next to try. */
  later(booking: Booking): number {
    const on = this.on(booking.body);
    const first = on.find(({ from }) => from > booking.from);
    for (const other of on) {
      if (other.from <= booking.from || other.up === booking.up) continue;
      if (this.turnsAfter(booking, other.up) > other.from - this.turn)
        return this.turnsAfter(other, booking.up) + this.turn;
      if (other === first && !other.turned && !this.canTurn(other, booking))
        return this.turnsAfter(other, booking.up) + this.turn;
    }
    return booking.from;
  }
}
