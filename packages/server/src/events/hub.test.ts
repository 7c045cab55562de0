// Listeners: each event once and in order, also after a break; who can't keep up is cut and comes back.
import { describe, expect, test } from '@jest/globals';
import type { SetEvent } from '@dusky-otter/core/contract';
import { EventHub, type Listener } from './hub.ts';

const event = (n: number): SetEvent => ({ type: 'unmade', keys: [`k${n}`] });
const progress: SetEvent = {
  type: 'preparation',
  preparation: {
    wanted: 1,
    made: 0,
    failed: 0,
    paused: false,
    doing: null,
    thorough: { wanted: 0, made: 0, saved: 0, now: false },
  },
};

/** A listener that takes so many events, and remembers what it took. */
function taker(most = Infinity) {
  const heard: { id: string; event: SetEvent }[] = [];
  let cuts = 0;
  const listener: Listener = {
    send: (text) => {
      if (heard.length >= most) return false;
      const [, id, data] = /^id: (\S+)\nevent: set-\d+\ndata: (.*)\n\n$/.exec(text)!;
      heard.push({ id: id!, event: JSON.parse(data!) as SetEvent });
      return true;
    },
    cut: () => cuts++,
  };
  return { listener, heard, cuts: () => cuts };
}

describe('the hub', () => {
  test('tells a set’s listeners and nobody else’s', () => {
    const hub = new EventHub();
    const [one, two] = [taker(), taker()];
    hub.listen([1], one.listener);
    const stop = hub.listen([2], two.listener);
    hub.tell(1, event(1));
    expect([one.heard.length, two.heard.length]).toEqual([1, 0]);
    expect(hub.watched).toEqual([1, 2]);
    stop();
    expect(hub.watched).toEqual([1]);
  });
  test('who was away hears what it missed, once, and goes on', () => {
    const hub = new EventHub();
    const before = taker();
    const stop = hub.listen([1], before.listener);
    hub.tell(1, event(1));
    stop();
    hub.tell(1, event(2));
    hub.tell(1, progress);
    hub.tell(1, event(3));
    const after = taker();
    hub.listen([1], after.listener, before.heard.at(-1)!.id);
    hub.tell(1, event(4));
    expect(after.heard.map(({ event: heard }) => heard)).toEqual([event(2), event(3), event(4)]);
  });
  test('who was away too long, or heard of an earlier start, is told to read anew', () => {
    const hub = new EventHub();
    const before = taker();
    hub.listen([1], before.listener)();
    hub.tell(1, event(0));
    const position = hub.now;
    for (let i = 1; i <= 600; i++) hub.tell(1, event(i));
    for (const last of [position, 'ffffffff-3', 'nonsense', '']) {
      const back = taker();
      hub.listen([1], back.listener, last);
      expect(back.heard.map(({ event: heard }) => heard)).toEqual([{ type: 'reset' }]);
      // From there it goes on as if it had never been away.
      const again = taker();
      hub.listen([1], again.listener, back.heard[0]!.id);
      expect(again.heard).toEqual([]);
    }
  });
  test('who can’t keep up is cut, comes back and misses nothing; the others wait for nobody', () => {
    const hub = new EventHub();
    const [slow, quick] = [taker(3), taker()];
    hub.listen([1], slow.listener);
    hub.listen([1], quick.listener);
    for (let i = 0; i < 10; i++) hub.tell(1, event(i));
    expect([slow.heard.length, slow.cuts(), quick.heard.length]).toEqual([3, 1, 10]);
    const back = taker();
    hub.listen([1], back.listener, slow.heard.at(-1)!.id);
    expect([...slow.heard, ...back.heard].map(({ event: heard }) => heard)).toEqual(
      quick.heard.map(({ event: heard }) => heard),
    );
  });
  test('an event is written once, however many listen', () => {
    const hub = new EventHub();
    const texts = new Set<string>();
    for (let i = 0; i < 500; i++)
      hub.listen([1], { send: (text) => Boolean(texts.add(text)), cut: () => undefined });
    let written = 0;
    hub.tell(1, {
      type: 'unmade',
      keys: [],
      toJSON: () => ({ type: 'unmade', written: ++written }),
    } as SetEvent);
    expect([texts.size, written]).toEqual([1, 1]);
  });
  test('counts what may change a page, not progress', () => {
    const hub = new EventHub();
    hub.tell(1, progress);
    expect(hub.changes).toBe(0);
    hub.tell(1, event(1));
    expect(hub.changes).toBe(1);
  });
  test('who hears of several sets hears them in the order in which they were told', () => {
    const hub = new EventHub();
    const before = taker();
    const stop = hub.listen([1, 2], before.listener);
    hub.tell(1, event(0));
    stop();
    for (const [n, set] of [2, 1, 2, 1, 3].entries()) hub.tell(set, event(n));
    const after = taker();
    hub.listen([1, 2], after.listener, before.heard.at(-1)!.id, [3]);
    expect(after.heard.map(({ event: heard }) => heard)).toEqual([0, 1, 2, 3].map(event));
    hub.tell(3, event(9));
    expect(after.heard.at(-1)!.event).toEqual(event(9));
  });
  test('what nobody listens to is not kept for ever; who comes back is told to read anew', () => {
    const hub = new EventHub();
    const one = taker();
    const stop = hub.listen([1], one.listener);
    hub.tell(1, event(1));
    stop();
    hub.tell(1, event(2));
    for (let set = 100; set < 300; set++) hub.tell(set, event(3));
    const back = taker();
    hub.listen([1], back.listener, one.heard.at(-1)!.id);
    expect(back.heard.map(({ event: heard }) => heard)).toEqual([{ type: 'reset' }]);
  });
});
