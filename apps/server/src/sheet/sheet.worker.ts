import { jobSheet } from './content';
import { type SheetOrder } from './maker';
import { jobSheetPdf } from './pdf';

/** Makes one job sheet. */
export default async function makeSheet({ plan, zone, shelf, learned }: SheetOrder): Promise<Uint8Array> {
  return jobSheetPdf(jobSheet(plan, zone, shelf, learned));
}
