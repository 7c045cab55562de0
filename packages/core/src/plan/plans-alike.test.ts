import { expect, test } from '@jest/globals';
import type { PlanContext, Slot } from '../contract/index.ts';
import { DEFAULT_DEVICES } from '../slots/devices.ts';
import { SHIPPED_SLOTS } from '../slots/shipped.ts';
import { DEFAULT_POLICY } from '../weight/target.ts';
import { plansAlike } from './plans-alike.ts';

const before: PlanContext = {
  slots: SHIPPED_SLOTS,
  devices: DEFAULT_DEVICES,
  policy: DEFAULT_POLICY,
  languages: ['en', 'de'],
};
const withFirst = (change: Partial<Slot>): PlanContext => ({
  ...before,
  slots: before.slots.map((slot, at) => (at === 0 ? { ...slot, ...change } : slot)),
});

test.each<[string, PlanContext]>([
  ['a name', withFirst({ name: 'The first', hint: 'large' })],
  [
    'how a width was said',
    withFirst({ said: '50vw', measured: { page: 'a', on: 'b', windows: 3, worst: 0 } }),
  ],
  ['another language that is not shown', { ...before, languages: ['en', 'fr'] }],
])('%s makes no other plans', (_, after) => expect(plansAlike(before, after)).toBe(true));

test.each<[string, PlanContext]>([
  ['a width', withFirst({ rule: [{ from: 0, vw: 0.5, px: 0 }] })],
  ['shapes', withFirst({ shapes: [{ shape: '1:1', from: 0, to: null }] })],
  ['a budget', withFirst({ budget: 1 })],
  ['loading', withFirst({ loading: 'lazy' })],
  ['the largest box', withFirst({ fit: { width: 10, height: 10 } })],
  ['a place more', { ...before, slots: [...before.slots, { ...before.slots[0]!, id: 'other' }] }],
  ['the rules', { ...before, policy: { ...before.policy, prefix: '/pictures/' } }],
  ['devices', { ...before, devices: before.devices.slice(1) }],
  ['the language that is shown', { ...before, languages: ['de', 'en'] }],
])('%s may make others', (_, after) => expect(plansAlike(before, after)).toBe(false));
