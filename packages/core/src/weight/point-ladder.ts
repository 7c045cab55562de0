// Points of bytes against difference that are worth measuring for a picture: spread evenly over what pages ask for.
import { QUALITY_RANGE, typicalQuality, type Curve } from './curves.ts';
import { predictedOffset, type Features } from './prediction.ts';

/** From where nobody sees anything to where everybody does, a third of an octave or less apart where targets lie. */
const DIFFERENCES = [0.8, 1.1, 1.4, 1.7, 2, 2.4, 3, 4, 6];

/** Encoder qualities, ascending and each once, at which a picture is expected to have those differences. */
export function pointQualities(curve: Curve, known: Features): number[] {
  const [low, high] = QUALITY_RANGE[curve];
  const offset = predictedOffset(curve, known);
  const qualities = DIFFERENCES.map((difference) =>
    Math.min(high, Math.max(low, Math.round(typicalQuality(curve, Math.log(difference) - offset)))),
  );
  return [...new Set(qualities)].sort((a, b) => a - b);
}
