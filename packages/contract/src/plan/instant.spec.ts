import { isInstant } from './instant';

describe('instants of a plan', () => {
  const are = [
    '2026-05-12T08:30:00Z',
    '2026-05-12T08:30:00.000Z',
    '2026-05-12T08:30+02:00',
    '2026-05-12',
    '2024-02-29T00:00:00Z',
    '1900-01-01T00:00:00Z',
    '2999-12-31T23:59:59Z',
  ];
  const areNot = [
    '2026-02-29T08:00:00Z',
    '2026-02-31T08:00:00Z',
    '2026-04-31',
    '2026-13-01',
    '2026-00-10',
    '2026-05-00',
    '2026-05-12T24:00:00Z',
    '2026-05-12T08:60:00Z',
    '2026-05-12T08:00:61Z',
    '2026-05-12T08:00:00+15:00',
    '1899-12-31T00:00:00Z',
    '3000-01-01T00:00:00Z',
    '+275760-09-13T00:00:00.000Z',
    '12 May 2026',
    ' 2026-05-12',
    '',
  ];
  for (const text of are) it(`are taken: ${text}`, () => expect(isInstant(text)).toBeTrue());
  for (const text of areNot) it(`are refused: "${text}"`, () => expect(isInstant(text)).toBeFalse());
});
