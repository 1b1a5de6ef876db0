import { PLACED_ZONE_NAMES } from '@zaffet/contract';
import { samplePart } from '../testing/plan';
import { placesOf, zonesOf } from './places';

const { part: bare } = samplePart();
const zone = (id: string, kind: 'pull' | 'rail', widthMm: number): (typeof bare.zones)[number] => ({
  id,
  kind,
  name: PLACED_ZONE_NAMES[kind],
  oval: false,
  leftMm: 10,
  topMm: 20,
  widthMm,
  heightMm: 40,
});
const part = { ...bare, zones: [zone('a', 'rail', 100), zone('b', 'rail', 300), zone('c', 'pull', 80)] };

describe('places of a part', () => {
  it('are its zones and the kinds of places it was given, each once', () => {
    expect(zonesOf(bare)).toEqual(['whole', 'field', 'edge', 'corner']);
    expect(zonesOf(part)).toEqual(['whole', 'field', 'edge', 'corner', 'pull', 'rail']);
  });

  it('are regions in metres, the largest first', () => {
    expect(placesOf(part, 'rail')).toEqual([
      { left: 0.01, top: 0.02, width: 0.3, height: 0.04, oval: false },
      { left: 0.01, top: 0.02, width: 0.1, height: 0.04, oval: false },
    ]);
    expect(placesOf(part, 'edge')).toEqual(['edge']);
    expect(placesOf(part, 'whole')).toEqual([]);
  });
});
