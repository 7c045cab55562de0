// The words that a site wants to be found by. Nothing is put in by itself: who writes sees which a photo could carry.
import type { Site } from '@dusky-otter/core/contract';
import { termsFrom, termsProblem } from '@dusky-otter/core/words';
import { useDraft } from '../screen/draft.ts';
import { edit } from '../server/state.ts';

export function Terms({ site }: { site: Site }) {
  const saved = site.terms;
  const draft = useDraft(saved.join(', '), site.version, (text) => {
    const terms = termsFrom(text);
    if (termsProblem(terms) !== null || terms.join() === saved.join()) return;
    edit('terms of the site', [{ kind: 'site', change: { terms } }]);
  });
  const problem = termsProblem(termsFrom(draft.text));
  return (
    <div className="grid grid-cols-[170px_1fr] gap-x-4 border-b border-rule px-4 py-3 max-[700px]:block">
      <label htmlFor="terms" className="font-title text-[14px] font-[600]">
        Terms
      </label>
      <div>
        <textarea
          id="terms"
          className="field resize-y"
          rows={2}
          lang={site.languages[0]}
          placeholder="stoneware, wood kiln, salt glaze"
          aria-invalid={problem !== null || undefined}
          value={draft.text}
          onChange={(event) => draft.change(event.target.value)}
          onBlur={draft.flush}
        />
        <p className={`pt-1 text-[12px] ${problem ? 'text-rust' : 'text-ink-2'}`} role="status">
          {problem ??
            'Words that people look for, parted by commas. At Describe you see which of them a photo could carry truthfully; none is put in by itself.'}
        </p>
      </div>
    </div>
  );
}
