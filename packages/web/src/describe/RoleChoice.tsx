// What a photo is there for: a short path of questions while nobody has said it, a row of answers afterwards.
import { useState } from 'react';
import type { Role } from '@dusky-otter/core/contract';
import { ROLES } from './roles.ts';

interface Props {
  role: Role | null;
  /** Words that are in the picture are on the page as well: then nobody needs them twice. */
  asksText: boolean;
  answer: (index: number) => void;
  answerText: (onPage: boolean) => void;
}

const Key = ({ children }: { children: string }) => <kbd className="key shrink-0">{children}</kbd>;

function Question({ asksText, answer, answerText }: Omit<Props, 'role'>) {
  const options: { key: string; text: string; act: () => void }[] = asksText
    ? [
        { key: 'Y', text: 'Yes: then it decorates', act: () => answerText(true) },
        { key: 'N', text: 'No: it carries them alone', act: () => answerText(false) },
      ]
    : ROLES.map((one, n) => ({ key: String(n + 1), text: one.answer, act: () => answer(n) }));
  return (
    <ol className="grid gap-1">
      {options.map(({ key, text, act }) => (
        <li key={key}>
          <button
            className="flex w-full items-baseline gap-2.5 rounded-paper border border-rule-strong bg-raised px-2.5 py-1.5 text-left hover:border-edge"
            aria-keyshortcuts={key}
            onClick={act}
          >
            <Key>{key}</Key>
            <span>{text}</span>
          </button>
        </li>
      ))}
    </ol>
  );
}

export function RoleChoice({ role, asksText, answer, answerText }: Props) {
  const [asked, setAsked] = useState(false);
  const asking = role === null || asksText || asked;
  const chosen = (n: number) => {
    setAsked(false);
    answer(n);
  };
  return (
    <section aria-labelledby="role-question">
      <div className="mb-1.5 flex items-baseline gap-2">
        <h2
          id="role-question"
          tabIndex={-1}
          className="font-body text-[13.5px] font-semibold"
          data-role-question
        >
          {asksText ? 'Are these words on the page as text, too?' : 'What is it here for?'}
        </h2>
        {role !== null && !asksText && (
          <button
            className="ml-auto text-[12.5px] text-ink-2 underline underline-offset-2"
            onClick={() => setAsked(!asked)}
          >
            {asked ? 'Close the questions' : 'Ask me'}
          </button>
        )}
      </div>
      {asking ? (
        <Question asksText={asksText} answer={chosen} answerText={answerText} />
      ) : (
        <div
          role="group"
          aria-label="What it is here for"
          className="grid grid-cols-5 gap-px overflow-hidden rounded-paper border border-rule-strong bg-rule-strong max-[480px]:grid-cols-2"
        >
          {ROLES.map((one, n) => (
            <button
              key={one.role}
              aria-pressed={role === one.role}
              aria-keyshortcuts={String(n + 1)}
              title={`${one.answer} (${n + 1})`}
              className="min-h-[30px] bg-raised px-1 text-[12.5px] text-ink-2 hover:text-ink aria-pressed:bg-kelp aria-pressed:font-semibold aria-pressed:text-on-kelp"
              onClick={() => chosen(n)}
            >
              {one.name}
            </button>
          ))}
        </div>
      )}
    </section>
  );
}
