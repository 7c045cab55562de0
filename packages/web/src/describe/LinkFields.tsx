// Where a functional photo leads, and how.
import type { Described } from './described.ts';
import { TextField } from './TextField.tsx';

export function LinkFields({ described }: { described: Described }) {
  const { row, save } = described;
  return (
    <div>
      <TextField described={described} field="link" label="Leads to" hint="/shop, or https://…" />
      <label className="mt-1.5 flex items-baseline gap-2">
        <input
          type="checkbox"
          className="size-[15px] translate-y-[2px] accent-kelp"
          checked={row.words.newWindow}
          onChange={(event) => save({ newWindow: event.target.checked }, { done: ' changed' })}
        />
        Opens a new window, and says so beside the picture
      </label>
    </div>
  );
}
