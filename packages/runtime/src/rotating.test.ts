// The rotating hero in a document without a screen: when it moves, when it stands still, and what has the focus.
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { JSDOM } from 'jsdom';

const SECONDS = 4;
const WORDS = {
  controls: 'Controls',
  pause: 'Pause',
  play: 'Play',
  back: 'Back',
  on: 'On',
  to: 'Picture {n} of {m}',
};

let dom: JSDOM;
let hidden = false;
let still = false;
/** Says whether the hero is seen. */
let seen: (isIntersecting: boolean) => void;
let lessMotion: () => void;

/** What the script takes from a browser, made of a document and what jsdom has none of. */
function makeWorld(): void {
  dom = new JSDOM(`<button id="before">before</button>
    <div class="dusky-rotating dusky-fades" data-seconds="${SECONDS}"><ul class="dusky-slides">
      ${[1, 2, 3].map((n) => `<li id="s${n}"><a href="#${n}">Slide ${n}</a><img alt="" loading="lazy"></li>`).join('')}
    </ul></div>`);
  const { window } = dom;
  dom.window.document
    .querySelector('.dusky-rotating')!
    .setAttribute('data-dusky-rotating', JSON.stringify(WORDS));
  [hidden, still] = [false, false];
  Object.defineProperty(window.document, 'hidden', { get: () => hidden, configurable: true });
  const world = globalThis as Record<string, unknown>;
  world.window = globalThis;
  world.document = window.document;
  world.getComputedStyle = () => ({ direction: 'ltr' });
  world.matchMedia = () => ({
    get matches() {
      return still;
    },
    addEventListener: (_: string, heard: () => void) => (lessMotion = heard),
  });
  world.MutationObserver = window.MutationObserver;
  world.AbortController = window.AbortController;
  world.addEventListener = window.addEventListener.bind(window);
  world.IntersectionObserver = class {
    constructor(heard: (all: { isIntersecting: boolean }[]) => void) {
      seen = (isIntersecting) => heard([{ isIntersecting }]);
    }
    observe() {
      return undefined;
    }
    disconnect() {
      return undefined;
    }
  };
}

const hero = () => dom.window.document.querySelector<HTMLElement>('.dusky-rotating')!;
const find = (selector: string) => hero().querySelector<HTMLElement>(selector)!;
const shown = () => find('.dusky-shown').id;
const sealed = () => [...hero().querySelectorAll<HTMLElement>('li')].map(({ inert }) => inert);
const point = (on: boolean) =>
  hero().dispatchEvent(new dom.window.Event(on ? 'pointerenter' : 'pointerleave'));
const turned = (times = 1) => jest.advanceTimersByTime(times * SECONDS * 1000);
const tabAway = (to = dom.window.document.querySelector<HTMLElement>('#before')!) => to.focus();

beforeEach(async () => {
  jest.useFakeTimers();
  makeWorld();
  jest.resetModules();
  await import('./rotating.ts');
});
afterEach(() => {
  jest.useRealTimers();
  dom.window.close();
});

describe('by itself', () => {
  test('it goes round, one after the other, and what is not seen is inert', () => {
    expect([shown(), sealed()]).toEqual(['s1', [false, true, true]]);
    turned();
    expect([shown(), sealed()]).toEqual(['s2', [true, false, true]]);
    turned(2);
    expect(shown()).toBe('s1');
  });
  test('the button stops it and lets it go on', () => {
    const stop = find('.dusky-play');
    expect(stop.ariaLabel).toBe('Pause');
    stop.click();
    turned(3);
    expect([shown(), stop.ariaLabel]).toEqual(['s1', 'Play']);
    stop.click();
    turned();
    expect(shown()).toBe('s2');
  });
  test('less motion that is asked for stops it at once', () => {
    still = true;
    lessMotion();
    turned(3);
    expect(shown()).toBe('s1');
  });
});

describe('it stands still', () => {
  const reasons: [string, () => void, () => void][] = [
    ['pointed at', () => point(true), () => point(false)],
    ['with the focus inside', () => find('#s1 a').focus(), () => tabAway()],
    ['out of sight', () => seen(false), () => seen(true)],
    [
      'in a tab behind',
      () => {
        hidden = true;
        dom.window.document.dispatchEvent(new dom.window.Event('visibilitychange'));
      },
      () => {
        hidden = false;
        dom.window.document.dispatchEvent(new dom.window.Event('visibilitychange'));
      },
    ],
  ];
  test.each(reasons)('%s, and goes on afterwards', (_, begin, end) => {
    begin();
    turned(3);
    expect(shown()).toBe('s1');
    end();
    turned();
    expect(shown()).toBe('s2');
  });
  const pairs = reasons.flatMap((first) =>
    reasons
      .filter((second) => second !== first)
      .map((second) => [first[0], second[0], first, second] as const),
  );
  test.each(pairs)('%s while it is no longer %s', (_, __, first, second) => {
    first[1]();
    second[1]();
    second[2]();
    turned(3);
    expect(shown()).toBe('s1');
    first[2]();
    turned();
    expect(shown()).toBe('s2');
  });
  test('when the focus goes from one of its parts to another', () => {
    find('#s1 a').focus();
    find('.dusky-on').focus();
    turned(3);
    expect(shown()).toBe('s1');
  });
});

describe('the focus', () => {
  test('stays where it is when a finger turns to another slide; that one is sealed once it has gone', () => {
    const link = find('#s1 a');
    link.focus();
    const row = find('.dusky-slides');
    for (const [type, clientX] of [
      ['pointerdown', 300],
      ['pointerup', 100],
    ] as const)
      row.dispatchEvent(
        Object.assign(new dom.window.Event(type, { bubbles: true }), { clientX, pointerType: 'touch' }),
      );
    expect(shown()).toBe('s2');
    expect(dom.window.document.activeElement).toBe(link);
    expect(sealed()).toEqual([false, false, true]);
    tabAway();
    jest.advanceTimersByTime(1);
    expect(sealed()).toEqual([true, false, true]);
  });
  test('the buttons turn it, name the slides, and leave it standing', () => {
    find('.dusky-on').click();
    expect([shown(), find('.dusky-slides').ariaLive]).toEqual(['s2', 'polite']);
    const marks = [...hero().querySelectorAll<HTMLElement>('.dusky-mark')];
    expect(marks.map(({ ariaLabel }) => ariaLabel)).toEqual([1, 2, 3].map((n) => `Picture ${n} of 3`));
    expect(marks.map(({ ariaCurrent }) => ariaCurrent)).toEqual([null, 'true', null]);
    marks[2]!.click();
    turned(3);
    expect(shown()).toBe('s3');
    find('.dusky-on').click();
    expect(shown()).toBe('s1');
    find('.dusky-back').click();
    expect(shown()).toBe('s3');
  });
});

describe('where the page changes', () => {
  /** What watches the page has heard of it. */
  const heard = () => jest.advanceTimersByTimeAsync(0);
  test('one that is added later begins by itself, once', async () => {
    const { document } = dom.window;
    const later = document.createElement('div');
    later.innerHTML = `<div class="dusky-rotating dusky-fades" data-seconds="0"><ul class="dusky-slides"><li>1</li><li>2</li></ul></div>`;
    const added = later.firstElementChild!;
    added.setAttribute('data-dusky-rotating', JSON.stringify(WORDS));
    document.body.append(later);
    await heard();
    document.body.prepend(later);
    await heard();
    expect(added.querySelectorAll('.dusky-controls')).toHaveLength(1);
    expect(added.querySelectorAll('.dusky-shown')).toHaveLength(1);
  });
  test('one that leaves is let go as it stood before, and begins anew where it comes again', async () => {
    const { document } = dom.window;
    const left = hero();
    turned();
    left.remove();
    await heard();
    expect(left.querySelector('.dusky-controls')).toBeNull();
    expect([...left.querySelectorAll<HTMLElement>('li')].some(({ inert }) => inert)).toBe(false);
    expect(jest.getTimerCount()).toBe(0);
    left.dispatchEvent(new dom.window.Event('pointerleave'));
    expect(jest.getTimerCount()).toBe(0);
    document.body.append(left);
    await heard();
    expect(left.querySelectorAll('.dusky-controls')).toHaveLength(1);
    expect(shown()).toBe('s1');
    turned();
    expect(shown()).toBe('s2');
  });
  test('one that is moved goes on where it was', async () => {
    turned();
    dom.window.document.body.prepend(hero());
    await heard();
    expect(shown()).toBe('s2');
    expect(hero().querySelectorAll('.dusky-controls')).toHaveLength(1);
  });
  test('within a shadow root it begins where that is said', async () => {
    const { document } = dom.window;
    const host = document.createElement('div');
    document.body.append(host);
    const root = host.attachShadow({ mode: 'open' });
    root.innerHTML = `<div class="dusky-rotating dusky-fades" data-seconds="0"><ul class="dusky-slides"><li>1</li><li>2</li></ul></div>`;
    const inside = root.firstElementChild!;
    inside.setAttribute('data-dusky-rotating', JSON.stringify(WORDS));
    await heard();
    expect(inside.querySelector('.dusky-controls')).toBeNull();
    inside.dispatchEvent(new dom.window.Event('dusky-begin', { bubbles: true, composed: true }));
    expect(inside.querySelectorAll('.dusky-controls')).toHaveLength(1);
  });
});
