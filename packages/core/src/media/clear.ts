import { type Medium } from './types';

/** A medium that needs a thicker film than this to hide is clear [µm]. */
const CLEAR_FROM = 1000;

/** Clear media let what is below be seen: varnish, glue, wax. */
export const isClear = ({ hidingUm }: Pick<Medium, 'hidingUm'>): boolean => hidingUm > CLEAR_FROM;
