// The weight of a row against its budget: as one bar on the table, and place by place at Weigh.
import type { RowVariant } from '@dusky-otter/core/contract';
import { treatmentIn } from '@dusky-otter/core/plan';
import { phoneWeights, variantSentTo, type SlotWeight } from '@dusky-otter/core/readiness';
import { RETINA_LAPTOP } from '@dusky-otter/core/slots';
import { bytesInWords, decisionInWords, FORMAT_NAMES } from '@dusky-otter/core/weight';
import { Link } from 'react-router';
import { useSetId, useSetPlaces, useSite, type Row } from '../server/hooks.ts';

/** The budget stands at this part of the bar's length. */
const BUDGET_AT = 0.6;

const along = (bytes: number, budget: number): string =>
  `${Math.min(1, (bytes / budget) * BUDGET_AT) * 100}%`;

function Bar({ weight, row }: { weight: SlotWeight; row: Row }) {
  const { bytes, over, slot } = weight;
  const laptop = variantSentTo(row, slot, RETINA_LAPTOP)?.bytes ?? 0;
  return (
    <div className="weight-scale relative h-[14px]" aria-hidden="true">
      <u
        className="absolute left-0 top-[6px] h-[2px] bg-edge"
        style={{ width: along(laptop, slot.budget) }}
      />
      <b
        className={`absolute left-0 top-[2px] h-[10px] ${over > 0 ? 'bg-rust' : 'bg-kelp'}`}
        style={{ width: along(bytes ?? 0, slot.budget) }}
      />
      <s
        className="absolute -bottom-[2px] -top-[2px] border-l-2 border-ink"
        style={{ left: `${BUDGET_AT * 100}%` }}
      />
    </div>
  );
}

/** How a file came about: size, format, the quality that was found and how far it is from the original. */
function madeOf({ width, format, quality, difference, target }: RowVariant): string {
  if (format === 'svg') return 'SVG, a drawing: sharp at every size';
  const encoded = `${width} px, ${FORMAT_NAMES[format]}${quality === null ? '' : ` at quality ${quality}`}`;
  if (difference === null) return encoded;
  if (difference === 0) return `${encoded}, lossless`;
  return `${encoded}, visible difference ${difference.toFixed(2)}${target === null ? '' : ` of ${target} allowed`}`;
}

function saidOf({ bytes, over, slot }: SlotWeight): string {
  if (bytes === null) return 'being made';
  return over > 0
    ? `${bytesInWords(over)} over its budget of ${bytesInWords(slot.budget)}`
    : `of ${bytesInWords(slot.budget)}`;
}

/** What a phone is sent in each of a row's places. */
function useWeights(row: Row): SlotWeight[] {
  const setPlaces = useSetPlaces();
  const site = useSite();
  return site ? phoneWeights(row, setPlaces, site) : [];
}

/** The place that weighs most against its budget. */
export function WeightCell({ row }: { row: Row }) {
  const [lead] = useWeights(row);
  const failure = row.variants.find((v) => v.failure)?.failure;
  if (failure) return <p className="line-clamp-3 text-rust">■ {failure}</p>;
  if (!lead) return null;
  return (
    <div className="pt-[5px]">
      <Bar weight={lead} row={row} />
      <div className="mt-1.5 text-[12.5px]">
        <b>{lead.bytes === null ? '–' : bytesInWords(lead.bytes)}</b>{' '}
        <span className={lead.over > 0 ? 'font-[560] text-rust' : 'text-ink-2'}>
          {lead.over > 0 && '▲ '}
          {saidOf(lead)}
        </span>
      </div>
      <div
        className="truncate text-[12px] text-ink-2"
        title={lead.variant ? madeOf(lead.variant) : undefined}
      >
        {lead.slot.name}
      </div>
    </div>
  );
}

/** How far the files are from the original at most, in a sentence; nothing where that was not measured. */
function differenceOf(made: readonly RowVariant[]): string {
  const worst = Math.max(...made.map((v) => v.difference ?? -1));
  const target = made.find((v) => v.target !== null)?.target;
  if (worst < 0) return '';
  if (worst === 0) return 'Every pixel is as in the original.';
  return `Visible difference ${worst.toFixed(2)} at most${target ? `, of ${target} allowed` : ''}.`;
}

/** Every place of the row with its bar and figures. */
export function WeightsCell({ row }: { row: Row }) {
  const weights = useWeights(row);
  const made = row.variants.filter((v) => v.bytes !== null);
  const failure = row.variants.find((v) => v.failure)?.failure;
  const setId = useSetId();
  const [lead] = weights;
  const { reason } = treatmentIn(row.original, (lead && row.quality[lead.slot.id]) ?? {});
  return (
    <div className="grid gap-1">
      {weights.slice(0, 4).map((weight) => {
        const laptop = variantSentTo(row, weight.slot, RETINA_LAPTOP);
        return (
          <div
            key={weight.slot.id}
            className="grid grid-cols-[150px_minmax(80px,1fr)_372px] items-center gap-3 max-[1240px]:grid-cols-[120px_minmax(60px,1fr)_250px] text-[12.5px]"
          >
            <span className="min-w-0">
              <span className="block truncate">{weight.slot.name}</span>
              {row.quality[weight.slot.id] && (
                <span className="block truncate text-[11.5px] text-dusk" title="Decided for this photo">
                  {decisionInWords(row.quality[weight.slot.id])}
                </span>
              )}
            </span>
            <Bar weight={weight} row={row} />
            <span className="whitespace-nowrap" title={weight.variant ? madeOf(weight.variant) : undefined}>
              <b>{weight.bytes === null ? '–' : bytesInWords(weight.bytes)}</b>{' '}
              <span className={weight.over > 0 ? 'font-[560] text-rust' : 'text-ink-2'}>
                {weight.over > 0 && '▲ '}
                {saidOf(weight)}
              </span>
              {laptop?.bytes != null && (
                <span className="text-ink-2 max-[1240px]:hidden">
                  , {bytesInWords(laptop.bytes)} on a retina laptop
                </span>
              )}
            </span>
          </div>
        );
      })}
      <div className="text-[12px] text-ink-2">
        {failure ? (
          <span className="text-rust">■ {failure}</span>
        ) : (
          <>
            <p>
              {reason}{' '}
              <Link
                className="underline underline-offset-2 hover:text-ink"
                to={`/sets/${setId}/weigh/${row.id}`}
              >
                Look at it
              </Link>
            </p>
            <p>
              {made.length} of {row.variants.length} files,{' '}
              {bytesInWords(made.reduce((sum, v) => sum + (v.bytes ?? 0), 0))} in all; the original has{' '}
              {bytesInWords(row.original.bytes)}. {differenceOf(made)}
            </p>
          </>
        )}
      </div>
    </div>
  );
}
