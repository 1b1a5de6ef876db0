import { unfilePlan } from '@zaffet/contract';
import { boardPages, tracePages } from '@zaffet/words';
import { pagesPdf } from './pages';
import { jobSheet } from './content';
import { type SheetOrder } from './maker';
import { jobSheetPdf } from './pdf';

/** All pages as a PDF, or one of them as it was drawn. */
async function sheetOf(
  title: string,
  pages: readonly { readonly name: string; readonly svg: string }[] | null,
  page: string | null,
): Promise<Uint8Array | null> {
  if (pages === null) return null;
  if (page === null) return pagesPdf(title, pages);
  const one = pages.find(({ name }) => name === page);
  return one === undefined ? null : Buffer.from(one.svg);
}

/** Makes one sheet; null where a plan is no board, or has no such page. */
export default async function makeSheet(order: SheetOrder): Promise<Uint8Array | null> {
  const plan = unfilePlan(order.plan);
  if (order.kind === 'board')
    return sheetOf(`${plan.name}: board sheet and frame`, boardPages(plan, order.units), order.page);
  if (order.kind === 'trace')
    return sheetOf(`${plan.name}: map to trace`, tracePages(plan, order.partId, order.stepId), order.page);
  const { zone, shelf, learned } = order;
  return jobSheetPdf(jobSheet(plan, zone, shelf, learned));
}
