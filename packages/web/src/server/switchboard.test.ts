// Windows on one line: each hears of its own set, none of another's, and nothing is missed when the line is drawn anew.
import { describe, expect, test } from '@jest/globals';
import { Switchboard, type Heard, type LineEvents } from './switchboard.ts';

interface Drawn {
  address: string;
  sets: readonly number[];
  events: LineEvents;
  closed: boolean;
}

function rig() {
  const lines: Drawn[] = [];
  const later: (() => void)[] = [];
  const board = new Switchboard(
    (address, sets, events) => {
      const line = { address, sets, events, closed: false };
      lines.push(line);
      return { close: () => (line.closed = true) };
    },
    (act) => later.push(act),
  );
  const newWindow = () => {
    const heard: Heard[] = [];
    return { heard, hear: (one: Heard) => void heard.push(one) };
  };
  return { board, lines, later, newWindow, line: () => lines.at(-1)! };
}
const data = (type: string) => `{"type":"${type}"}`;

describe('the switchboard', () => {
  test('has one line however many windows there are, and tells each of its own set', () => {
    const { board, lines, newWindow, line } = rig();
    const windows = Array.from({ length: 9 }, newWindow);
    windows.forEach(({ hear }, n) => board.watch(hear, 1 + (n % 2)));
    expect(lines.filter(({ closed }) => !closed)).toHaveLength(1);
    expect(line().sets).toEqual([1, 2]);
    line().events.event(2, data('set'), 'a-1');
    expect(windows.map(({ heard }) => heard.filter(({ kind }) => kind === 'event').length)).toEqual([
      0, 1, 0, 1, 0, 1, 0, 1, 0,
    ]);
  });
  test('goes on behind what was heard last, of the sets that were listened to; of others from now on', () => {
    const { board, newWindow, line } = rig();
    const [one, two] = [newWindow(), newWindow()];
    board.watch(one.hear, 1);
    expect(line().address).toBe('/api/events?sets=1');
    line().events.event(1, data('set'), 'a-7');
    board.watch(two.hear, 5);
    expect(line().address).toBe('/api/events?sets=1%2C5&known=1&last=a-7');
  });
  test('tells who joins later how far the files are, and whether the line is open', () => {
    const { board, lines, newWindow, line } = rig();
    board.watch(newWindow().hear, 1);
    line().events.state(true);
    line().events.event(1, data('preparation'), '');
    const late = newWindow();
    board.watch(late.hear, 1);
    expect(lines).toHaveLength(1);
    expect(late.heard).toEqual([
      { kind: 'line', open: true },
      { kind: 'event', setId: 1, data: data('preparation') },
    ]);
  });
  test('lets go of sets that nobody shows any more, and of the line with the last of them', () => {
    const { board, lines, newWindow, line } = rig();
    const [one, two] = [newWindow(), newWindow()];
    board.watch(one.hear, 1);
    board.watch(two.hear, 2);
    board.leave(one.hear);
    expect(line().sets).toEqual([2]);
    board.watch(two.hear, null);
    expect(lines.every(({ closed }) => closed)).toBe(true);
    line().events.event(2, data('set'), 'a-2');
    expect(two.heard.filter(({ kind }) => kind === 'event')).toEqual([]);
  });
  test('a line that the browser gave up is drawn again, with all that was missed', () => {
    const { board, lines, later, newWindow, line } = rig();
    const one = newWindow();
    board.watch(one.hear, 3);
    line().events.event(3, data('set'), 'a-4');
    line().events.state(false);
    line().events.gone();
    later.pop()!();
    expect(lines).toHaveLength(2);
    expect(line().address).toBe('/api/events?sets=3&known=3&last=a-4');
    // One that was given up, and had another in its place already, is not drawn once more.
    lines[0]!.events.gone();
    later.pop()!();
    expect(lines).toHaveLength(2);
  });
});
