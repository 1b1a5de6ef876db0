import { type Answer, answerTo, type Order } from './tasks';

/** Reads what is too large for the thread that answers. */
export default function read(order: Order): Answer {
  return answerTo(order);
}
