import { type PlanStep } from '@zaffet/contract';
import { after, newCoat, newDistress, newResist, newWipe } from './create';
import { hiddenUnder } from './stepMap';

describe('what lies hidden under a step', () => {
  const wax = newResist('wax', 'candle', after(0));
  const jelly = newResist('jelly', 'jelly', after(0));
  const top = newCoat('top', 'latex', '#aabbcc', 'Grey', after(60));
  const scrape = newDistress('scrape', 'scrape', after(60));
  const wipe = newWipe('wipe', after(60));
  const under = (steps: readonly PlanStep[], id: string): string[] =>
    hiddenUnder(steps, id).map((step) => step.id);

  it('is wax and jelly that a coat went over', () => {
    const steps = [wax, jelly, top, scrape, wipe];
    expect(under(steps, 'top')).toEqual([]);
    expect(under(steps, 'scrape')).toEqual(['wax', 'jelly']);
    expect(under([top, scrape], 'scrape')).toEqual([]);
  });

  it('is gone once it was scraped off, or wiped', () => {
    expect(under([wax, jelly, top, scrape, wipe], 'wipe')).toEqual(['jelly']);
    expect(under([wax, jelly, top, wipe, scrape], 'scrape')).toEqual(['wax']);
  });
});
