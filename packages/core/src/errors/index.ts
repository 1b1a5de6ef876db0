/** What a door of the core says when it refuses a value. */
export interface InputFault {
  /** Stable machine-readable name, such as `air.temperature`. */
  readonly code: string;
  /** Which field was refused, as the caller named it. */
  readonly field: string;
  readonly value: unknown;
  /** The rule, in words a person can act on. */
  readonly allowed: string;
}

/** Refusal of bad input at a public door of the core: says the field, the value received and what is allowed. */
export class InputError extends RangeError implements InputFault {
  readonly code: string;
  readonly field: string;
  readonly value: unknown;
  readonly allowed: string;

  constructor(fault: InputFault) {
    super(`${fault.field} is ${String(fault.value)}; it must be ${fault.allowed}.`);
    this.name = 'InputError';
    this.code = fault.code;
    this.field = fault.field;
    this.value = fault.value;
    this.allowed = fault.allowed;
  }
}

/** A closed range of allowed values, in SI. */
export interface Range {
  readonly min: number;
  readonly max: number;
}

/**
 * Checks that a number is finite and inside a closed range.
 * @throws InputError naming the field, the value and the range
 */
export function checkRange(field: string, value: number, range: Range, unit: string): void {
  if (!Number.isFinite(value) || value < range.min || value > range.max) {
    throw new InputError({
      code: field,
      field,
      value,
      allowed: `a number from ${range.min} to ${range.max}${unit === '' ? '' : ` ${unit}`}`,
    });
  }
}
