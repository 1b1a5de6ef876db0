import { Growth } from '@zaffet/core/crack';
import { basisOf } from '@zaffet/workshop';
import { FINGERPRINT, FINGERPRINT_INPUT } from '../../../../../packages/core/src/testing/fields';
import { computed, samplePart } from '../testing/plan';

import { FaceClient } from './face.client';
import { FacePool } from './face.pool';
import { faceRequest, type FaceLook, openingAt } from './face-request';

const LOOK: FaceLook = {
  view: 'close',
  columns: 200,
  rows: 150,
  quality: 'full',
  halfPixels: false,
  raking: 0.5,
  mode: 'colour',
  age: null,
};

describe('face request', () => {
  it('asks for what the forecast says, all of it, and the cracks it shows measured', () => {
    const { forecast } = computed(samplePart());
    const request = faceRequest(forecast, LOOK);
    expect(request.scene).toBe(forecast.scene);
    expect(request.scene.layers.map((layer) => layer.id)).toEqual(['panel', 'base', 'slip', 'top']);
    expect(request.measured).toBe(3);
    expect(request.view.widthMm).toBeCloseTo(60);
    expect([request.openingShare, request.until]).toEqual([1, forecast.scene.events.length]);
  });

  it('leaves out what comes after the cracks while they open', () => {
    const { forecast } = computed(samplePart('hide-glue'));
    const early = faceRequest(forecast, { ...LOOK, age: 1 });
    expect(early.openingShare).toBeNull();
    expect(early.scene.events[early.until - 1]!.kind).toBe('crack');
  });

  it('draws a plain coat where nothing cracks', () => {
    const plan = samplePart();
    const { forecast } = computed({ ...plan, steps: plan.steps.slice(0, 1) });
    const request = faceRequest(forecast, LOOK);
    expect([request.measured, request.openingShare]).toEqual([null, 1]);
  });

  it('keeps the aspect of a narrow panel', () => {
    const plan = samplePart();
    const rail = {
      ...plan,
      part: {
        ...plan.part,
        widthMm: 900,
        heightMm: 90,
      },
    };
    const { forecast } = computed(rail);
    const request = faceRequest(forecast, { ...LOOK, view: 'whole' });
    expect(request.columns / request.rows).toBeCloseTo(request.view.widthMm / request.view.heightMm, 0);
  });

  it('opens the cracks over time, from none to the end', () => {
    const { forecast } = computed(samplePart());
    const crack = forecast.coats[2]!.crack!;
    const first = crack.firstAt! - forecast.coats[2]!.laidAt;
    expect(openingAt(forecast, first - 5)).toBeNull();
    const shares = [first + 1, first + 300, first + 900, first + 1e5].map((age) => openingAt(forecast, age)!);
    expect([...shares].sort((a, b) => a - b)).toEqual(shares);
    expect(shares.at(-1)).toBe(1);
  });
});

describe('the field in this browser', () => {
  it("is bit for bit the one the core's own suite grows", () => {
    const growth = new Growth(FINGERPRINT_INPUT);
    while (growth.step());
    expect(growth.result().fingerprint).toBe(FINGERPRINT);
  });
});

describe('face worker', () => {
  const { forecast } = computed(samplePart());
  const request = faceRequest(forecast, LOOK);

  it('draws a picture off the page and measures it', async () => {
    const answer = await new FaceClient().draw(request);
    if (answer.outcome !== 'done') throw new Error('overtaken');
    expect(answer.rgba.length).toBe(request.columns * request.rows * 4);
    const predicted = forecast.coats[2]!.crack!.spacing * 1000;
    expect(answer.figures!.spacingMm / predicted).toBeGreaterThan(0.75);
    expect(answer.figures!.spacingMm / predicted).toBeLessThan(1.35);
    const top = forecast.layers.find((layer) => layer.id === 'top')!.share;
    expect(Math.abs(answer.shares.layers[3]! - top)).toBeLessThan(0.08);
  });

  it('lets a newer request overtake an older one, and reports progress', async () => {
    const client = new FaceClient();
    const large = { ...request, view: { ...request.view, widthMm: 260, heightMm: 200 } };
    const heard: number[] = [];
    const older = client.draw(large, (share) => heard.push(share));
    await new Promise((resolve) => setTimeout(resolve, 150));
    const newer = client.draw({ ...request, scene: { ...request.scene, seed: 3 } });
    expect((await older).outcome).toBe('overtaken');
    expect((await newer).outcome).toBe('done');
    expect(heard.every((share) => share > 0 && share < 1)).toBeTrue();
  });

  it('tells how the crackle depends on the moment, as the school has it', async () => {
    const strengths = await new FaceClient().moments({
      basis: basisOf(samplePart()),
      stepIndex: 2,
      waits: [60, 900, 20000],
    });
    expect([...strengths].sort((a, b) => b - a)).toEqual(strengths);
    expect(strengths[2]).toBeLessThan(0.05);
  });
});

describe('face pool', () => {
  it('draws many pictures, none overtaken, the same as one worker draws', async () => {
    const { forecast } = computed(samplePart());
    const request = faceRequest(forecast, LOOK);
    const seeds = [1, 2, 3, 4, 5];
    const pool = new FacePool();
    const answers = await Promise.all(
      seeds.map((seed) => pool.draw({ ...request, scene: { ...request.scene, seed } })),
    );
    pool.ngOnDestroy();
    const prints = answers.map((answer) => (answer.outcome === 'done' ? answer.fingerprint : 0));
    expect(new Set(prints).size).toBe(seeds.length);
    const client = new FaceClient();
    const alone = await client.draw({ ...request, scene: { ...request.scene, seed: 3 } });
    client.ngOnDestroy();
    expect(alone.outcome === 'done' && alone.fingerprint).toBe(prints[2]!);
  });
});
