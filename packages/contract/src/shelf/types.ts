import { type Grit } from '@zaffet/core/plan';
import { type Body } from '@zaffet/core/quantity';

/** Something on the shelf. */
interface ItemFields {
  readonly id: string;
  readonly name: string;
}

/** A tin, bottle or bag as it was bought. */
export interface TinItem extends ItemFields {
  readonly kind: 'tin';
  /** Key of a generic medium. */
  readonly medium: string;
  /** `#rrggbb`; null for clear media. */
  readonly colour: string | null;
  readonly amountMl: number;
  readonly pricePerL: number | null;
  /** ISO 8601; null while it is closed. */
  readonly openedAt: string | null;
  /** Bought again when no more than this is left; left out, or null, where the usual holds. */
  readonly restockMl?: number | null;
  /** Day after which it is not to be used, `2027-05-14`. */
  readonly useBy?: string | null;
  /** Hash of a photograph of its label. */
  readonly photo?: string | null;
  /** What it cost from which day on, oldest first. */
  readonly prices?: readonly TinPrice[];
}

export interface TinPrice {
  readonly on: string;
  readonly pricePerL: number;
}

/** What was mixed and is left. */
export interface PotItem extends ItemFields {
  readonly kind: 'pot';
  readonly medium: string;
  readonly colour: string | null;
  readonly amountMl: number;
  /** Litres of water in a litre of the medium. */
  readonly dilution: number;
  readonly mixedAt: string;
  readonly keptCold: boolean;
  readonly body: Body | null;
}

/** Abrasive sheets. */
export interface AbrasiveItem extends ItemFields {
  readonly kind: 'abrasive';
  readonly grit: Grit;
  readonly sheets: number;
}

export type ShelfItem = TinItem | PotItem | AbrasiveItem;
export const SHELF_KINDS = ['tin', 'pot', 'abrasive'] as const satisfies readonly ShelfItem['kind'][];

type FieldsOf<Item> = Item extends ShelfItem ? Partial<Omit<Item, 'id' | 'kind'>> : never;
/** What changes about a thing on the shelf; fields that are not named stay as they are. */
export type ItemChanges = FieldsOf<ShelfItem>;

/** What this painter measures with. */
export interface MeasuresFile {
  readonly dishMl: number;
  readonly spoonMl: number;
  readonly teaspoonMl: number;
}
export const USUAL_MEASURES: MeasuresFile = { dishMl: 100, spoonMl: 15, teaspoonMl: 5 };

export interface Shelf {
  readonly items: readonly ShelfItem[];
  readonly measures: MeasuresFile;
}
