import { samplePlan } from '../testing/plan';
import { Drafts } from './drafts';

describe('drafts', () => {
  const drafts = new Drafts();
  afterEach(() => localStorage.clear());

  it('come back as they were kept, until they are dropped', () => {
    drafts.keep('a', { plan: samplePlan(), revision: 3 });
    expect(drafts.find('a')).toEqual({ plan: samplePlan(), revision: 3 });
    drafts.drop('a');
    expect(drafts.find('a')).toBeNull();
  });

  it('kept by an older Zaffet are brought to the present version; damaged ones are left', () => {
    const { finishes, palette: _palette, hours: _hours, ...plan } = samplePlan();
    const old = { ...plan, version: 3, steps: finishes[0]!.steps, look: { spacingMm: 5, openingMm: null } };
    localStorage.setItem('zaffet-draft-b', JSON.stringify({ plan: old, revision: 1 }));
    const found = drafts.find('b')!;
    expect(found.plan.version).toBe(4);
    expect(found.plan.finishes[0]!.look.spacingMm).toBe(5);
    localStorage.setItem('zaffet-draft-c', '{"plan": {"format"');
    expect(drafts.find('c')).toBeNull();
  });

  it('keep what was typed on the shelf', () => {
    const change = { key: 'p', take: 'p' };
    drafts.keepShelf([change]);
    expect(drafts.findShelf()).toEqual([change]);
    drafts.keepShelf([]);
    expect(drafts.findShelf()).toEqual([]);
  });
});
