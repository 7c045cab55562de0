// Where a functional photo leads, and how.
import type { Described } from './described.ts';
import { TextField } from './TextField.tsx';
import { Tick } from '../ui/Tick.tsx';

export function LinkFields({ described }: { described: Described }) {
  const { row, save } = described;
  return (
    <div>
      <TextField described={described} field="link" label="Leads to" hint="/shop, or https://…" />
      <Tick
        className="mt-1.5"
        checked={row.words.newWindow}
        set={(newWindow) => save({ newWindow }, { done: ' changed' })}
      >
        Opens a new window, and says so beside the picture
      </Tick>
    </div>
  );
}
