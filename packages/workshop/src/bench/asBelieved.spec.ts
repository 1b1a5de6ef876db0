import { asBelieved } from './asBelieved';

describe('figures of a part at the Bench', () => {
  const predicted = [
    { key: 'spacing', value: 6.4e-3, low: 4e-3, high: 9e-3 },
    { key: 'chips', value: 0.1, low: 0.05, high: 0.2 },
  ] as const;

  it('are those that the card of the coat in hand has, the others as predicted', () => {
    const spacing = { at: 7.3e-3, low: 5e-3, high: 1e-2 };
    expect(asBelieved(predicted, { spacing })).toEqual([
      { key: 'spacing', value: spacing.at, low: spacing.low, high: spacing.high },
      predicted[1],
    ]);
    expect(asBelieved(predicted, {})).toEqual([...predicted]);
  });
});
