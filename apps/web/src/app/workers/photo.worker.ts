import { InputError } from '@zaffet/core/errors';
import { measurePhoto } from '@zaffet/core/photo';
import { expose } from 'comlink';
import { type PhotoWorker } from './photo-messages';

const worker: PhotoWorker = {
  measure: (picture, corners, size) => {
    try {
      return { read: measurePhoto(picture, corners, size), refused: null };
    } catch (error) {
      if (error instanceof InputError) return { read: null, refused: error.message };
      throw error;
    }
  },
};

expose(worker);
