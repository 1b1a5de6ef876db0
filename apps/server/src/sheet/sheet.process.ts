import { unfilePlan } from '@zaffet/contract';
import { boardPages, tracePages } from '@zaffet/words';
import { jobSheet } from './content';
import { type SheetMessage, type SheetOrder } from './maker';
import { pagesPdf } from './pages';
import { jobSheetPdf } from './pdf';

/** What of a job sheet is worked out before it is laid out: the rest is the PDF's. */
const WORKED_OUT = 0.7;

/** All pages as a PDF, or one of them as it was drawn. */
async function sheetOf(
  title: string,
  pages: readonly { readonly name: string; readonly svg: string }[] | null,
  page: string | null,
): Promise<Uint8Array | null> {
  if (pages === null) return null;
  if (page === null) return pagesPdf(title, pages);
  const found = pages.find(({ name }) => name === page);
  return found === undefined ? null : Buffer.from(found.svg);
}

/** Makes one sheet; null where a plan is no board, or has no such page. */
async function makeSheet(order: SheetOrder, progress: (share: number) => void): Promise<Uint8Array | null> {
  const plan = unfilePlan(order.plan);
  if (order.kind === 'board')
    return sheetOf(`${plan.name}: board sheet and frame`, boardPages(plan, order.notation), order.page);
  if (order.kind === 'trace')
    return sheetOf(`${plan.name}: map to trace`, tracePages(plan, order.partId, order.stepId), order.page);
  const { zone, notation, shelf, learned } = order;
  return jobSheetPdf(jobSheet(plan, zone, notation, shelf, learned, (share) => progress(share * WORKED_OUT)));
}

const answer = (message: SheetMessage): void => void process.send!(message);

process.on('message', (order: SheetOrder) => {
  makeSheet(order, (share) => answer({ kind: 'progress', share })).then(
    (bytes) => answer({ kind: 'made', bytes }),
    (error: unknown) => answer({ kind: 'failed', why: String(error) }),
  );
});
