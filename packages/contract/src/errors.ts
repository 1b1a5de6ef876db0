/** Every error the API and the command line can give: its sentence and its HTTP status. */
export const ERRORS = {
  'plan.not-a-plan': {
    status: 400,
    message: 'This is not a Zaffet plan file. Choose a .json file that Zaffet saved.',
  },
  'plan.too-new': {
    status: 400,
    message: 'This plan file was written by a newer Zaffet. Update this one to read it.',
  },
  'plan.invalid': { status: 400, message: 'Something in the plan is outside what Zaffet can work with.' },
  'plan.not-found': {
    status: 404,
    message: 'This plan is not here any more. It may have been removed in another window.',
  },
  'plan.stale': {
    status: 409,
    message: 'This plan was changed elsewhere since you opened it. Choose which one to keep.',
  },
  'shelf.invalid': { status: 400, message: 'This cannot stand on the shelf so.' },
  'shelf.full': {
    status: 409,
    message: 'The shelf is full. Take out what is used up, then add this again.',
  },
  'palette.unreadable': { status: 400, message: 'This is no palette file that Zaffet can read.' },
  'picture.unreadable': {
    status: 400,
    message: 'This picture cannot be opened. Choose a PNG, JPEG or WebP file.',
  },
  'request.not-json': {
    status: 400,
    message: 'The file or request is not readable JSON. It may be cut short or damaged.',
  },
  'request.too-large': {
    status: 413,
    message: 'The file is larger than 4 MB; a plan file is some kB, with painted maps some hundred.',
  },
  'request.unknown-route': { status: 404, message: 'There is nothing at this address.' },
  'request.host-refused': { status: 403, message: 'Zaffet answers only to the address it was started on.' },
  'server.failed': {
    status: 500,
    message: 'Zaffet could not do this. What you have on the screen is kept; try again.',
  },
} as const satisfies Record<string, { status: number; message: string }>;

export type ErrorCode = keyof typeof ERRORS;

/** One refused field: where, what stood there, what is allowed. */
export interface FieldFault {
  readonly path: string;
  readonly message: string;
}

/** The body of every error answer. */
export interface Fault {
  readonly code: ErrorCode;
  readonly message: string;
  readonly fields: readonly FieldFault[];
}

export function fault(code: ErrorCode, fields: readonly FieldFault[] = []): Fault {
  return { code, message: ERRORS[code].message, fields };
}

/** An error that carries its answer. */
export class ZaffetError extends Error {
  constructor(readonly fault: Fault) {
    super([fault.message, ...fault.fields.map((field) => field.message)].join(' '));
    this.name = 'ZaffetError';
  }
}
