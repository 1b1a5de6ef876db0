import { boardPages } from '@zaffet/words';
import { boardSheetPdf } from './board';
import { jobSheet } from './content';
import { type BoardOrder, type SheetOrder } from './maker';
import { jobSheetPdf } from './pdf';

async function boardSheet({ plan, units, page }: BoardOrder): Promise<Uint8Array | null> {
  const pages = boardPages(plan, units);
  if (pages === null) return null;
  if (page === null) return boardSheetPdf(plan.name, pages);
  const one = pages.find(({ name }) => name === page);
  return one === undefined ? null : Buffer.from(one.svg);
}

/** Makes one sheet; null where a plan is no board, or has no such page. */
export default async function makeSheet(order: SheetOrder): Promise<Uint8Array | null> {
  if (order.kind === 'board') return boardSheet(order);
  const { plan, zone, shelf, learned } = order;
  return jobSheetPdf(jobSheet(plan, zone, shelf, learned));
}
