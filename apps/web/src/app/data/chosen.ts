import { type Signal, signal } from '@angular/core';

/** One of some words that a person chose once, for this browser. */
export interface Chosen<Word extends string> {
  readonly value: Signal<Word>;
  choose(word: Word): void;
}

/**
 * Remembers a choice in this browser; the first word is meant where nobody chose. A browser that keeps nothing still
 * shows what was chosen.
 * @param key - it is kept under
 */
export function chosenOf<Word extends string>(key: string, words: readonly [Word, ...Word[]]): Chosen<Word> {
  const value = signal(remembered(key, words));
  return {
    value: value.asReadonly(),
    choose(word) {
      value.set(word);
      try {
        localStorage.setItem(key, word);
      } catch {
        // It holds until the page is closed.
      }
    },
  };
}

function remembered<Word extends string>(key: string, words: readonly [Word, ...Word[]]): Word {
  try {
    return words.find((word) => word === localStorage.getItem(key)) ?? words[0];
  } catch {
    return words[0];
  }
}
