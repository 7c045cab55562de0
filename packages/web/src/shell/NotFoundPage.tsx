// A mistyped address under the head of the ledger.
import { NotFound } from '../ui/NotFound.tsx';
import { Masthead } from './Masthead.tsx';

export const NotFoundPage = () => (
  <div className="grid h-full grid-rows-[56px_1fr]">
    <Masthead />
    <main className="bg-sheet p-8">
      <NotFound />
    </main>
  </div>
);
