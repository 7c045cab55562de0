// A sheet that asks for one name: of a site, or of a set.
import { useState } from 'react';
import { sentenceOf } from '../api/client.ts';
import { Sheet } from './Sheet.tsx';

interface Props {
  open: boolean;
  onClose: () => void;
  title: string;
  about: string;
  example: string;
  action: string;
  name?: string;
  /** Carries it out; what it throws is shown, and the name stays in its field. */
  onName: (name: string) => Promise<void>;
}

export function NameSheet({
  open,
  onClose,
  title,
  about,
  example,
  action,
  name: before = '',
  onName,
}: Props) {
  const [name, setName] = useState(before);
  const [problem, setProblem] = useState<string | null>(null);
  const carryOut = async () => {
    try {
      await onName(name.trim());
      setProblem(null);
      onClose();
    } catch (error) {
      setProblem(sentenceOf(error));
    }
  };
  return (
    <Sheet open={open} onClose={onClose} title={title} about={about}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void carryOut();
        }}
      >
        <label className="block font-semibold">
          Name
          <input
            // The one thing that the sheet asks for.
            autoFocus
            className="field mt-1 text-[15px] font-normal"
            value={name}
            maxLength={200}
            placeholder={example}
            onChange={(event) => setName(event.target.value)}
            aria-describedby="name-problem"
          />
        </label>
        <p id="name-problem" role="alert" className="mt-1 min-h-5 text-rust">
          {problem}
        </p>
        <button className="btn btn-main" disabled={name.trim() === ''}>
          {action}
        </button>
      </form>
    </Sheet>
  );
}
