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
  'plan.unreadable': {
    status: 422,
    message:
      'What is stored of this plan cannot be read. Take it out as a file, mend what is named here, and bring it in again.',
  },
  'shelf.not-found': {
    status: 404,
    message: 'This is not on the shelf any more. It may have been taken off in another window.',
  },
  'shelf.invalid': { status: 400, message: 'This cannot stand on the shelf so.' },
  'shelf.full': {
    status: 409,
    message: 'The shelf is full. Take out what is used up, then add this again.',
  },
  'shop.invalid': { status: 400, message: 'The shop cannot be so.' },
  'run.invalid': { status: 400, message: 'These are no events of a run that Zaffet can keep.' },
  'calibration.invalid': { status: 400, message: 'This is no calibration that Zaffet can keep.' },
  'run.not-found': {
    status: 404,
    message: 'This run is not here. It begins with its plan; send that first.',
  },
  'log.invalid': { status: 400, message: 'The log cannot be searched for this.' },
  'photo.not-found': {
    status: 404,
    message:
      'This photograph is not here yet. It comes from the device that took it, as soon as that is online.',
  },
  'photo.invalid': {
    status: 400,
    message: 'This is no photograph that Zaffet can keep: send a JPEG, PNG or WebP file as it is.',
  },
  'photo.other': {
    status: 400,
    message:
      'What came is not the photograph that was announced. It may be cut short or damaged; send it again.',
  },
  'photo.full': {
    status: 507,
    message:
      'Photographs take all the room they may have here. Where the disk has more, set ZAFFET_PHOTOS_GB to it and start Zaffet again.',
  },
  'backup.unreadable': {
    status: 400,
    message: 'This is no backup that Zaffet wrote, or it is cut short or damaged. Nothing was changed.',
  },
  'backup.not-found': {
    status: 404,
    message: 'This backup is not kept any more. Choose one of those that are.',
  },
  'backup.too-new': {
    status: 400,
    message:
      'This backup was written by a newer Zaffet. Update this one to bring it in. Nothing was changed.',
  },
  'backup.too-large': {
    status: 413,
    message: 'This file is larger than 8 GB; no backup is. Nothing was changed.',
  },
  'air.unreadable': {
    status: 400,
    message:
      'This is no file of air readings. Choose a CSV file with the columns time, temperature_c, humidity_percent.',
  },
  'air.refused': {
    status: 400,
    message: 'These are no readings of the air that Zaffet can keep.',
  },
  'palette.unreadable': { status: 400, message: 'This is no palette file that Zaffet can read.' },
  'picture.unreadable': {
    status: 400,
    message: 'This picture cannot be opened. Choose a PNG, JPEG or WebP file.',
  },
  'picture.too-large': {
    status: 413,
    message: 'This picture file is larger than 25 MB. Save it as a JPEG, or smaller.',
  },
  'picture.too-many-pixels': {
    status: 413,
    message: 'This picture has more than 50 million pixels. Save it smaller: 12 million are plenty.',
  },
  'picture.heic': {
    status: 415,
    message:
      'This is a HEIC picture, which this browser cannot open. Save it as a JPEG, or let the camera take JPEGs (“most compatible”).',
  },
  'request.not-json': {
    status: 400,
    message: 'The file or request is not readable JSON. It may be cut short or damaged.',
  },
  'request.too-large': {
    status: 413,
    message:
      'This is larger than Zaffet takes: 12 MB for a plan, which usually has some kB, and 2 MB for anything else. Leave out painted maps that are not needed, or make two plans of it.',
  },
  'request.too-complex': {
    status: 400,
    message:
      'This file or request has too many entries, or too many lists inside lists. Choose a file that Zaffet saved.',
  },
  'request.unreadable': {
    status: 400,
    message: 'The request cannot be read. It may be cut short, or packed in a way that Zaffet does not know.',
  },
  'request.bad-address': { status: 400, message: 'This address is written in a way that cannot be read.' },
  'request.range-refused': { status: 416, message: 'The part asked for is outside of what is there.' },
  'request.changed': {
    status: 412,
    message: 'What is there is not what the request expects. Fetch it anew.',
  },
  'request.origin-refused': {
    status: 403,
    message: 'Only pages of this Zaffet may ask for this. Open Zaffet itself.',
  },
  'request.unknown-route': { status: 404, message: 'There is nothing at this address.' },
  'request.host-refused': { status: 403, message: 'Zaffet answers only to the address it was started on.' },
  'session.needed': {
    status: 401,
    message: 'This device is not signed in. Sign in with the workshop’s pass phrase, or by an invitation.',
  },
  'session.wrong-phrase': { status: 401, message: 'This is not the pass phrase of this workshop.' },
  'session.old-key': {
    status: 401,
    message: 'This invitation was used or is too old. Make a new one on a device that is signed in.',
  },
  'session.invalid': { status: 400, message: 'Nobody can sign in like this.' },
  'session.not-found': { status: 404, message: 'This device is not signed in any more.' },
  'session.too-many-tries': {
    status: 429,
    message: 'Too many tries from this device. Try again in a quarter of an hour.',
  },
  'session.no-network': {
    status: 409,
    message: 'This Zaffet answers only to its own machine: nobody has to sign in, and nobody can be invited.',
  },
  'map.none': {
    status: 404,
    message:
      'This step has no painted map on this part, or no such tile. Paint one in Look, and trace it then.',
  },
  'board.none': {
    status: 404,
    message: 'This plan is no sample board. Make one in Boards, and print its sheet there.',
  },
  'sheet.too-long': {
    status: 503,
    message:
      'The job sheet took too long. Leave out parts that are done, or some painted maps, and try again.',
  },
  'sheet.two-at-once': {
    status: 429,
    message: 'Two sheets for this device are being made already. Ask for the next when they are there.',
  },
  'server.busy': {
    status: 503,
    message: 'Zaffet has too much to do just now. Try again in a moment.',
  },
  'server.disk-full': {
    status: 507,
    message:
      'The disk under Zaffet is full. What you have on the screen is kept; make room, then save again.',
  },
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
