import { describe, expect, test } from '@jest/globals';
import { CssError } from '../css/errors.ts';
import { widthAt } from '../css/width-rule.ts';
import { derivedBudget, FIRST_SCREEN_BYTES } from './budget.ts';
import { slotProblem } from '../places/problem.ts';
import { SHIPPED_SLOTS } from './shipped.ts';
import { mendedWidth, readWidth, rowsOf, widthText } from './typed-width.ts';

describe('what an editor typed', () => {
  test('words and CSS come to the same', () => {
    const words = readWidth('420 px column');
    const css = readWidth(' min(100vw - 32px, 420px) ');
    expect(css.rule).toEqual(words.rule);
    expect([words.words, css.words, css.css]).toEqual([true, false, 'min(100vw - 32px, 420px)']);
    expect(widthAt(readWidth('(min-width: 700px) 50vw, 100vw').rule, 700)).toBe(350);
  });

  test.each([
    ['clamp(280px, 50vw – 24px, 560px)', 18],
    ['', 0],
    ['50vw, 30vw', 6],
    ['0px', 0],
    ['calc(100vw - 3000px)', 0],
    [`${'1'.repeat(600)}px`, 500],
  ])('%s fails at %d', (text, position) => {
    expect(() => readWidth(text)).toThrow(CssError);
    try {
      readWidth(text);
    } catch (error) {
      expect((error as CssError).position).toBe(position);
    }
  });

  test.each([
    ['clamp(280px, 50vw – 24px, 560px)', 'clamp(280px, 50vw - 24px, 560px)'],
    ['100vw-32px', 'calc(100vw - 32px)'],
    ['min(100vw - 32px, 720px', 'min(100vw - 32px, 720px)'],
    ['min(100vw - 32, 720)', 'min(100vw - 32px, 720px)'],
    ['720 pixels', null],
    ['50 vw', '50vw'],
    ['min(100vw-32px, 720 px', 'min(100vw - 32px, 720px)'],
    ['12,5vw', '12.5vw'],
    ['as you like', null],
    ['50vw', null],
  ])('%s is mended to %s', (text, mended) => {
    expect(mendedWidth(text)).toBe(mended);
    if (mended !== null) expect(() => readWidth(mended)).not.toThrow();
  });

  test('is shown again as it was said, and has to be what is planned', () => {
    const column = SHIPPED_SLOTS.find(({ id }) => id === 'column')!;
    expect(widthText({ rule: column.rule })).toBe('min(100vw - 32px, 720px)');
    expect(widthText(column)).toBe('720 px column');
    expect(slotProblem({ ...column, said: '720 px column' })).toBeNull();
    expect(slotProblem({ ...column, said: '721 px column' })).toContain('not the width of the rule');
    expect(slotProblem({ ...column, said: '72O px column' })).toContain('no width that is known');
    expect(rowsOf(column)).toBeNull();
    expect(rowsOf({ said: '4 across with 16 px between' })).toEqual({
      across: [{ from: 0, count: 4 }],
      gap: 16,
    });
  });
});

describe('derived budgets', () => {
  test('the bytes of a first screen', () => {
    // 2.5 s less five round trips of 0.15 s bring 1.75 s × 200 kB; 200 kB of them are the page itself.
    expect(FIRST_SCREEN_BYTES).toBe(150_000);
  });

  test.each([
    // 390 × 488 of 390 × 664 px.
    ['hero', 110_000],
    // 358 × 239.
    ['column', 50_000],
    // 358 × 448.
    ['half', 95_000],
    // 173 × 173: 17,300 bytes.
    ['grid', 15_000],
    // 358 × 239: the whole photo.
    ['viewer', 50_000],
  ])('%s gets %d bytes', (id, bytes) => {
    expect(derivedBudget(SHIPPED_SLOTS.find((slot) => slot.id === id)!)).toBe(bytes);
  });

  test('what is higher than the screen gets all of it, what is tiny the least', () => {
    const column = SHIPPED_SLOTS.find(({ id }) => id === 'column')!;
    const tall = {
      ...column,
      rule: readWidth('100vw').rule,
      shapes: [{ shape: '1:9' as const, from: 0, to: null }],
    };
    expect(derivedBudget(tall)).toBe(150_000);
    expect(derivedBudget({ ...column, rule: readWidth('12px').rule })).toBe(5_000);
    expect(derivedBudget(column, { alone: true })).toBe(150_000);
    expect(derivedBudget({ ...column, fit: { width: 100, height: 100 } })).toBe(5_000);
  });
});
