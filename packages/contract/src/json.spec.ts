import fc from 'fast-check';
import { ZaffetError } from './errors';
import { JSON_LIMITS, JsonMeter, readJson } from './json';

const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text);
const codeOf = (text: string): string => {
  try {
    readJson(bytesOf(text));
    return 'read';
  } catch (error) {
    return error instanceof ZaffetError ? error.fault.code : String(error);
  }
};

describe('a JSON text from outside', () => {
  it('is read as JSON.parse reads it', () => {
    fc.assert(
      fc.property(fc.jsonValue({ maxDepth: 6 }), (value) => {
        const text = JSON.stringify(value);
        expect(readJson(bytesOf(text))).toEqual(JSON.parse(text));
      }),
    );
  });

  it('is refused in words where it is cut short or none', () => {
    for (const text of ['', '{"a": ', '[1,', 'nonsense', '\u0000'])
      expect(codeOf(text)).withContext(text).toBe('request.not-json');
  });

  const { depth, groups, names } = JSON_LIMITS;
  const nested = (n: number): string => '['.repeat(n) + ']'.repeat(n);
  const list = (n: number): string => `[${Array<string>(n).fill('{}').join()}]`;
  const fields = (n: number): string => `{${Array.from({ length: n }, (_, i) => `"${i}":1`).join()}}`;
  it('is read up to its limits, and refused one beyond', () => {
    expect([depth, depth + 1].map((n) => codeOf(nested(n)))).toEqual(['read', 'request.too-complex']);
    expect([groups - 1, groups].map((n) => codeOf(list(n)))).toEqual(['read', 'request.too-complex']);
    expect([names, names + 1].map((n) => codeOf(fields(n)))).toEqual(['read', 'request.too-complex']);
  });

  it('is refused before anything is made of it', () => {
    const open = bytesOf('['.repeat(31_000_000));
    spyOn(JSON, 'parse').and.throwError('it was parsed');
    expect(() => readJson(open)).toThrowError(ZaffetError);
    expect(JSON.parse).not.toHaveBeenCalled();
  });

  it('may hold brackets and colons in its texts, however they are quoted', () => {
    const text = JSON.stringify({ a: '[{:"\\'.repeat(300_000), b: '\\' });
    expect(codeOf(text)).toBe('read');
  });

  it('is counted alike however its bytes are cut', () => {
    const counted = (pieces: readonly Uint8Array[]): string => {
      const meter = new JsonMeter();
      for (const piece of pieces) meter.take(piece);
      return JSON.stringify(meter);
    };
    fc.assert(
      fc.property(fc.jsonValue(), fc.nat(), (value, where) => {
        const bytes = bytesOf(JSON.stringify(value));
        const cut = where % (bytes.length + 1);
        expect(counted([bytes.subarray(0, cut), bytes.subarray(cut)])).toBe(counted([bytes]));
      }),
    );
  });
});
