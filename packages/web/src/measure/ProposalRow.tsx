// A proposed place: how wide it is, which pictures it stands for, how well the rule fits, and whether it is taken.
import { sizesOf } from '@dusky-otter/core/css';
import type { Proposal } from '@dusky-otter/core/pages';
import { Mini, widthIn, WINDOWS } from '../places/Section.tsx';
import { shapesSaid } from '../places/shapes-said.ts';
import { StateTag } from '../ui/marks.tsx';

export interface Choice {
  take: boolean;
  name: string;
}

interface Props {
  number: number;
  proposal: Proposal;
  /** Measured without a stylesheet of the page. */
  doubtful: boolean;
  choice: Choice;
  change: (choice: Choice) => void;
}

function Judgement({ proposal, doubtful }: Pick<Props, 'proposal' | 'doubtful'>) {
  const { same, drawings, stretched, edge, loose, worst, pictures } = proposal;
  const fits = worst < 0.05 ? 'exactly' : `within ${worst.toFixed(1)} px`;
  return (
    <>
      {doubtful && <StateTag state="care">Without a stylesheet of the page: not to be trusted</StateTag>}
      {same ? (
        <StateTag state="ready">You have it: “{same.name}” is the same to the pixel</StateTag>
      ) : drawings ? (
        <StateTag state="todo">A drawing needs no sizes; left unless you say so</StateTag>
      ) : (
        <StateTag state={worst <= 1 ? 'ready' : 'care'}>The rule fits {fits}</StateTag>
      )}
      {stretched.length > 0 && (
        <StateTag state="care">
          {stretched.length === pictures.length
            ? pictures.length === 1
              ? 'It is stretched'
              : 'All are stretched'
            : `${stretched.length} of ${pictures.length} ${stretched.length === 1 ? 'is' : 'are'} stretched`}
          : files of another ratio are squeezed in. A place cuts them instead
        </StateTag>
      )}
      {edge > 0 && (
        <StateTag state="todo">
          Its border and padding, {Number(edge.toFixed(1))} px in all, are left out: the width is the
          picture’s own
        </StateTag>
      )}
      {loose && (
        <StateTag state="care">
          Its height does not follow its width: the commonest ratio stands for it
        </StateTag>
      )}
    </>
  );
}

export function ProposalRow({ number, proposal, doubtful, choice, change }: Props) {
  const { slot, pictures, same } = proposal;
  const css = sizesOf(slot.rule);
  return (
    <li
      className={`grid gap-x-3 border-b border-rule py-2.5 pl-3 pr-4 min-[701px]:grid-cols-[24px_96px_minmax(0,1fr)_auto] ${choice.take ? '' : 'bg-paper'}`}
      data-proposal={number}
    >
      <span
        className={`h-[20px] w-[22px] text-center text-[12px] font-[650] leading-[20px] ${choice.take ? 'bg-kelp text-on-kelp' : 'bg-ink-2 text-sheet'}`}
      >
        {number}
      </span>
      <span className="max-[700px]:hidden">
        <Mini slot={slot} photo={null} />
      </span>
      <div className="min-w-0">
        <p className="flex flex-wrap items-baseline gap-2">
          <input
            className="field w-auto min-w-0 max-w-[220px] px-1.5 py-0.5 font-title font-[620]"
            aria-label={`Name of proposal ${number}`}
            maxLength={100}
            value={choice.name}
            onChange={(event) => change({ ...choice, name: event.target.value })}
          />
          <small className="text-[12px] text-ink-2">
            {pictures.length} {pictures.length === 1 ? 'picture' : 'pictures'}
          </small>
        </p>
        <dl className="my-1 flex flex-wrap gap-x-4 text-[12px] leading-snug text-ink-2">
          {WINDOWS.map(({ width }) => (
            <div key={width}>
              <dt className="inline">{width} px </dt>
              <dd className="block text-[13px] font-[600] text-ink">
                {Math.round(widthIn(slot, width, null).width)}
              </dd>
            </div>
          ))}
          <div>
            <dt className="inline">shape</dt>
            <dd className="block text-[13px] font-[600] text-ink">{shapesSaid(slot)}</dd>
          </div>
        </dl>
        {slot.said !== css && <p className="truncate">{slot.said}</p>}
        <p className="truncate font-figure text-[12px]" title={css}>
          {css}
        </p>
        <p className="mt-1 grid gap-1">
          <Judgement proposal={proposal} doubtful={doubtful} />
        </p>
      </div>
      <div role="group" aria-label={`Proposal ${number}`} className="flex content-start">
        <button
          className="chip rounded-none"
          aria-pressed={choice.take}
          onClick={() => change({ ...choice, take: true })}
        >
          Take
        </button>
        <button
          className="chip rounded-none"
          aria-pressed={!choice.take}
          onClick={() => change({ ...choice, take: false })}
        >
          {same ? 'Use yours' : 'Leave'}
        </button>
      </div>
    </li>
  );
}
