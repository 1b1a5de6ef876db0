import { createActionGroup, emptyProps, props } from '@ngrx/store';
import { type Fault, type LogAnswer, type LogQuery } from '@zaffet/contract';

/** What a person looks for in the log. */
export const LogHand = createActionGroup({
  source: 'Log hand',
  events: {
    Opened: emptyProps(),
    /** Changes what is looked for; what is undefined is free again. */
    Asked: props<{ query: LogQuery }>(),
    'More asked': emptyProps(),
  },
});

export const LogServer = createActionGroup({
  source: 'Log server',
  events: {
    Found: props<{ query: LogQuery; answer: LogAnswer }>(),
    Failed: props<{ fault: Fault }>(),
  },
});
