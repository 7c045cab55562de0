// The thorough search for one variant: what the quick one found, then every recipe of its format that may do with fewer
// bytes, each searched to the last per cent. Costs many times the time, and its result is never worse.
import type { Recipe } from '../contract/index.ts';
import type { LossyFormat } from './curves.ts';
import { predictedOffset, type Features } from './prediction.ts';
import { recipeKey, thoroughRecipes, type Thorough } from './recipes.ts';
import { bestOf, offsetOf, QualitySearch } from './search.ts';
import { VariantSearch, type Trial, type VariantAttempt } from './variant-search.ts';

/** Aimed at below the target; from `NEAR` on nothing more is looked for. */
const AIM = 0.985;
const NEAR = 0.975;
/** Encodes that one recipe may cost. */
const MOST = 6;

/** Driven as `VariantSearch` is. */
export class ThoroughSearch {
  readonly attempts: VariantAttempt[] = [];
  private readonly quick: VariantSearch;
  private readonly recipes: Thorough[];
  private recipe: Recipe | null = null;
  private search: QualitySearch | null = null;

  constructor(
    format: LossyFormat,
    private readonly target: number,
    private readonly features: Features,
  ) {
    this.quick = new VariantSearch(format, target, features);
    this.recipes = [...thoroughRecipes(format, features.width * features.height)];
  }

  get next(): Trial | null {
    const { quick } = this;
    if (quick.next) return quick.next;
    while (!this.search || this.search.next === null) {
      const next = this.recipes.shift();
      if (!next) return null;
      this.begin(next);
    }
    return { ...this.recipe!, quality: this.search.next };
  }

  /** The smallest file within the target, or the one with the least difference when none is; null before any. */
  get best(): VariantAttempt | null {
    return bestOf(this.attempts, this.target);
  }

  take(attempt: VariantAttempt): void {
    const { best, quick, search } = this;
    this.attempts.push(attempt);
    if (quick.next) return quick.take(attempt);
    search!.take(attempt);
    // A recipe that fails with as many bytes as another needs to meet the target can't win any more.
    const lost =
      attempt.difference > this.target &&
      best !== null &&
      best.difference <= this.target &&
      attempt.bytes >= best.bytes;
    if (lost) this.search = null;
  }

  private begin({ recipe, curve, shift }: Thorough): void {
    // What the quick search has learnt of this picture on the same curve: the attempt nearest to the target.
    const miss = ({ difference }: VariantAttempt) => Math.abs(Math.log(difference / this.target));
    const known = this.quick.attempts
      .filter((a) => curve === 'webp' || curve === 'avif' || a.fullChroma === recipe.fullChroma)
      .sort((a, b) => miss(a) - miss(b))[0];
    // With a recipe of the quick pass it goes on where that ended.
    const same = this.quick.attempts.filter((a) => recipeKey(a) === recipeKey(recipe));
    this.recipe = recipe;
    this.search = new QualitySearch({
      curve,
      shift,
      target: this.target,
      offset: known ? offsetOf(curve, known) : predictedOffset(curve, this.features),
      most: MOST + same.length,
      aim: AIM,
      near: NEAR,
    });
    for (const attempt of same) this.search.take(attempt);
  }
}
