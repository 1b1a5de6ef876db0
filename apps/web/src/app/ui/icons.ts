import {
  mdiArrowDown,
  mdiArrowUp,
  mdiClose,
  mdiDeleteOutline,
  mdiDiceMultipleOutline,
  mdiDownload,
  mdiInvertColors,
  mdiPlus,
  mdiRedo,
  mdiTuneVariant,
  mdiUndo,
  mdiUpload,
} from '@mdi/js';

/** Icons that ship with Zaffet, by the name templates use. */
export const ICONS = {
  undo: mdiUndo,
  redo: mdiRedo,
  plus: mdiPlus,
  close: mdiClose,
  remove: mdiDeleteOutline,
  up: mdiArrowUp,
  down: mdiArrowDown,
  'file-out': mdiDownload,
  'file-in': mdiUpload,
  reroll: mdiDiceMultipleOutline,
  values: mdiTuneVariant,
  opposite: mdiInvertColors,
} as const;
