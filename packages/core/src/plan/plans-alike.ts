// Whether two states of a site make the same plans: a text that changed costs no planning anew.
import type { PlanContext, Slot } from '../contract/index.ts';

/** What plans, weights and findings hang on of a place; its texts and where its width came from are not among it. */
const planned = ({ id, rule, shapes, budget, loading, fit, tallest, of }: Slot) => ({
  ...{ id, rule, shapes, budget, loading, fit, tallest, of },
});

/** What they hang on of a site: its places, rules and devices, and the language that is shown. */
const plannedOf = ({ slots, devices, policy, languages }: PlanContext): string =>
  JSON.stringify([slots.map(planned), devices, policy, languages[0]]);

/** True where no photo would want another file, or be judged otherwise, after a change from one to the other. */
export const plansAlike = (before: PlanContext, after: PlanContext): boolean =>
  before === after || plannedOf(before) === plannedOf(after);
