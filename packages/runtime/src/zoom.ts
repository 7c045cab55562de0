// The zoom figure: the large file is loaded when somebody looks closely, and not before. Pointer, finger, two fingers and
// keys move it. Without this script a click leads to the file.
import { clicked, each, largeBehind } from './said.ts';

/** A key moves the picture by this part of its frame. */
const STEP = 0.1;

each('zoom', (figure, said, gone) => {
  const link = figure.querySelector<HTMLAnchorElement>('a[data-dusky-open]')!;
  const most = Number(figure.dataset.times);
  const fingers = new Map<number, PointerEvent>();
  let large: HTMLPictureElement | null = null;
  let times = 1;
  let [x, y] = [0.5, 0.5];
  let spread = 0;

  const draw = () => {
    if (times > 1 && !large) {
      // Of its files the widest, in the best format that the browser reads.
      large = largeBehind(link).querySelector('picture')!;
      large.className = 'dusky-close';
      for (const one of large.querySelectorAll<HTMLImageElement>('source, img')) {
        one.sizes = '9999px';
        one.alt = '';
        one.loading = 'eager';
      }
      link.append(large);
    }
    figure.classList.toggle('dusky-zoomed', times > 1);
    if (!large) return;
    // The frame and the picture have one ratio: where the pointer is in the one is where it is in the other.
    large.style.transform = `translate(${-x * (times - 1) * 100}%, ${-y * (times - 1) * 100}%) scale(${times})`;
  };
  const to = (zoom: number, left = x, top = y) => {
    times = Math.min(most, Math.max(1, zoom));
    [x, y] = [Math.min(1, Math.max(0, left)), Math.min(1, Math.max(0, top))];
    draw();
  };
  const within = ({ clientX, clientY }: PointerEvent): [number, number] => {
    const { left, top, width, height } = link.getBoundingClientRect();
    return [(clientX - left) / width, (clientY - top) / height];
  };
  const apart = (): number => {
    const [a, b] = [...fingers.values()];
    return a && b ? Math.hypot(a.clientX - b.clientX, a.clientY - b.clientY) : 0;
  };

  link.ariaDescription = said.how!;
  const asked = (event: MouseEvent) => {
    // A mouse looks closely by being there, Enter and a tap by asking.
    if (!(event instanceof PointerEvent && event.pointerType === 'mouse')) to(times > 1 ? 1 : most);
  };
  clicked(link, asked, gone);
  const on = <K extends keyof HTMLElementEventMap>(name: K, heard: (event: HTMLElementEventMap[K]) => void) =>
    link.addEventListener(name, heard, { signal: gone });
  on('pointermove', (event) => {
    if (event.pointerType === 'mouse') return to(most, ...within(event));
    if (!fingers.has(event.pointerId)) return;
    const last = fingers.get(event.pointerId)!;
    fingers.set(event.pointerId, event);
    const { width, height } = link.getBoundingClientRect();
    if (fingers.size > 1) {
      const now = apart();
      if (spread) to((times * now) / spread);
      spread = now;
    } else if (times > 1)
      to(
        times,
        x - (event.clientX - last.clientX) / width / (times - 1),
        y - (event.clientY - last.clientY) / height / (times - 1),
      );
  });
  on('pointerdown', (event) => {
    if (event.pointerType !== 'mouse') fingers.set(event.pointerId, event);
    spread = 0;
  });
  for (const end of ['pointerup', 'pointercancel', 'pointerleave'] as const)
    on(end, (event) => {
      fingers.delete(event.pointerId);
      spread = 0;
      if (event.pointerType === 'mouse' && end === 'pointerleave') to(1);
    });
  on('keydown', (event) => {
    const way = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
    if (event.key === 'Escape') to(1);
    else if (event.key === '+' || event.key === '-') to(times * (event.key === '+' ? 1.25 : 0.8));
    else if (way && times > 1) to(times, x + way[0]! * STEP, y + way[1]! * STEP);
    else return;
    event.preventDefault();
  });
  on('blur', () => to(1));
  gone.onabort = () => to(1);
});
