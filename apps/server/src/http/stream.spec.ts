import { type Response } from 'express';
import { EventEmitter } from 'node:events';
import { Streams } from './stream';

class FakeResponse extends EventEmitter {
  readonly lines: string[] = [];
  readonly req: { readonly method: string };
  ended = false;
  constructor(method = 'GET') {
    super();
    this.req = { method };
  }
  writeHead(): void {}
  write(line: string): void {
    this.lines.push(line);
  }
  end(): void {
    this.ended = true;
  }
}

describe('streams', () => {
  let streams: Streams<string>;
  let changes = 0;
  beforeEach(() => {
    changes = 0;
    streams = new Streams(() => (changes += 1));
    jasmine.clock().install();
  });
  afterEach(() => jasmine.clock().uninstall());
  const add = (who: string | null, about = 'lid', method = 'GET'): FakeResponse => {
    const response = new FakeResponse(method);
    streams.add(response as unknown as Response, who, about, ': first\n\n');
    return response;
  };

  it('send each page what it wants to hear, and a line now and then so that a lost one is noticed', () => {
    const [lid, leg] = [add(null), add(null, 'leg')];
    streams.send('3', (about) => about === 'lid');
    jasmine.clock().tick(15_000);
    expect(lid.lines).toEqual([': first\n\n', 'data: 3\n\n', ': still here\n\n']);
    expect(leg.lines).toEqual([': first\n\n', ': still here\n\n']);
    lid.emit('close');
    streams.send('4', () => true);
    expect(lid.lines.length).toBe(3);
    expect(streams.wanted()).toEqual(['leg']);
    expect(changes).toBe(3);
  });

  it('are so many of one device, and so many in all', () => {
    for (let n = 0; n < 8; n++) add('tablet');
    expect(() => add('tablet')).toThrowError(/too much to do/);
    expect(() => add('phone')).not.toThrow();
    for (let n = 9; n < 64; n++) add(null);
    expect(() => add('laptop')).toThrowError(/too much to do/);
  });

  it('end with their headers where only those are asked for, and take nobody’s place', () => {
    for (let n = 0; n < 20; n++) expect(add('tablet', 'lid', 'HEAD').ended).toBeTrue();
    expect(streams.wanted()).toEqual([]);
  });
});
