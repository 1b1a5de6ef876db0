import { type ShelfItem } from '@zaffet/contract';
import Papa from 'papaparse';
import { mediumName } from './names';

/** What a list of the shelf tells, column by column: mL, prices in the shop's currency, days and moments as ISO 8601. */
const COLUMNS = [
  'kind',
  'name',
  'what',
  'colour',
  'left_ml',
  'price_per_l',
  'opened',
  'restock_ml',
  'use_by',
  'prices',
  'mixed',
  'water_per_l',
  'kept_cold',
  'sheets',
  'id',
] as const;
type Row = Partial<Record<(typeof COLUMNS)[number], string | number>>;

function row(item: ShelfItem): Row {
  const { id, kind, name } = item;
  switch (item.kind) {
    case 'tin':
      return {
        ...{ id, kind, name, what: mediumName(item.medium), left_ml: item.amountMl },
        colour: item.colour ?? '',
        price_per_l: item.pricePerL ?? '',
        opened: item.openedAt ?? '',
        restock_ml: item.restockMl ?? '',
        use_by: item.useBy ?? '',
        prices: (item.prices ?? []).map(({ on, pricePerL }) => `${on} ${pricePerL}`).join('; '),
      };
    case 'pot':
      return {
        ...{ id, kind, name, what: mediumName(item.medium), left_ml: item.amountMl },
        colour: item.colour ?? '',
        mixed: item.mixedAt,
        water_per_l: item.dilution,
        kept_cold: item.keptCold ? 'yes' : 'no',
      };
    case 'abrasive':
      return { id, kind, name, what: `${item.grit} grit`, sheets: item.sheets };
  }
}

/** The shelf as CSV (RFC 4180): a line a thing, as they stand there. */
export const shelfCsv = (items: readonly ShelfItem[]): string =>
  Papa.unparse({ fields: [...COLUMNS], data: items.map(row) }, { newline: '\r\n', escapeFormulae: true });
