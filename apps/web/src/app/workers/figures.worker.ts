import { readout, regionReadout } from '@zaffet/core/readout';
import { expose } from 'comlink';
import { type FiguresWorker } from './figures-messages';

/** Works out figures with their bands and knobs off the page's thread: some twenty forecasts a time. */
const worker: FiguresWorker = {
  figures: ({ basis, region }) => ({
    readout: readout(basis),
    region: region === null ? null : regionReadout(basis, region),
  }),
};

expose(worker);
