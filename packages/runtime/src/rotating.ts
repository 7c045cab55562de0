// The rotating hero, after the carousel pattern of the ARIA Authoring Practices Guide: it stands still while it is pointed
// at, has the focus or is out of sight, as long as any of these holds (WCAG 2.2.2); it has a button that stops it in front
// of everything that moves, and never moves by itself where less motion is asked for. Without this script its pictures
// stand in a row that scrolls.
import { button, counted, each, isStill, swiped } from './said.ts';

each('rotating', (hero, said, gone) => {
  const row = hero.querySelector<HTMLElement>('.dusky-slides')!;
  const slides = [...row.children] as HTMLElement[];
  if (slides.length < 2) return;
  const seconds = Number(hero.dataset.seconds ?? 0);
  const fades = hero.classList.contains('dusky-fades');
  const controls = document.createElement('div');
  const marks = document.createElement('div');
  let at = 0;
  let playing = seconds > 0 && !isStill();
  /** Why it stands still at the moment: it goes on once no reason is left. */
  const reasons = new Set<'pointed' | 'focus' | 'hidden' | 'away'>();
  let timer = 0;
  controls.className = 'dusky-controls';
  controls.setAttribute('role', 'group');
  controls.ariaLabel = said.controls!;
  marks.className = 'dusky-marks';

  const wait = () => {
    clearTimeout(timer);
    if (playing && reasons.size === 0) timer = window.setTimeout(() => change(at + 1), seconds * 1000);
  };
  // What is not seen is not heard, and takes no focus; one that has it keeps it until it goes by itself.
  const seal = () =>
    slides.forEach((slide, k) => (slide.inert = k !== at && !slide.contains(document.activeElement)));
  const show = (n: number) => {
    at = (n + slides.length) % slides.length;
    seal();
    slides.forEach((slide, k) => {
      slide.classList.toggle('dusky-shown', k === at);
      const mark = marks.children[k];
      if (mark) mark.ariaCurrent = k === at ? 'true' : null;
      if (k !== at && k !== (at + 1) % slides.length) return;
      slide.classList.remove('dusky-far');
      for (const img of slide.querySelectorAll('img')) img.loading = 'eager';
    });
    if (!fades) {
      const left = slides[at]!.offsetLeft - slides[0]!.offsetLeft;
      row.scrollTo({ left, behavior: isStill() ? 'auto' : 'smooth' });
    }
    wait();
  };
  const change = (n: number) => {
    hero.classList.add('dusky-changed');
    show(n);
  };
  const set = (on: boolean) => {
    playing = on;
    // Polite only once it no longer goes by itself.
    row.ariaLive = on ? 'off' : 'polite';
    stop.ariaLabel = on ? said.pause! : said.play!;
    hero.classList.toggle('dusky-plays', on);
    wait();
  };
  const turn = (by: number) => {
    set(false);
    change(at + by);
  };
  const stop = button('play', '', () => set(!playing));
  slides.forEach((_, n) =>
    marks.append(button('mark', counted(said.to!, n + 1, slides.length), () => turn(n - at))),
  );
  if (seconds > 0) controls.append(stop);
  controls.append(
    button('back', said.back!, () => turn(-1)),
    marks,
    button('on', said.on!, () => turn(1)),
  );
  // In front of the slides: who comes by keyboard can stop it before anything has moved.
  hero.prepend(controls);
  for (const slide of slides) slide.classList.add('dusky-far');
  hero.classList.add('dusky-runs');

  const hold = (reason: 'pointed' | 'focus' | 'hidden' | 'away', on: boolean) => {
    if (on) reasons.add(reason);
    else reasons.delete(reason);
    wait();
  };
  const on = (name: string, of: EventTarget, heard: (event: Event) => void) =>
    of.addEventListener(name, heard, { signal: gone });
  on('pointerenter', hero, () => hold('pointed', true));
  on('pointerleave', hero, () => hold('pointed', false));
  on('focusin', hero, () => hold('focus', true));
  on('focusout', hero, (event) => {
    // From one of its parts to another it stays inside.
    hold('focus', hero.contains((event as FocusEvent).relatedTarget as Node | null));
    // Where it goes is known only now; what it left may be sealed then.
    setTimeout(seal);
  });
  on('visibilitychange', document, () => hold('hidden', document.hidden));
  const sight = new IntersectionObserver((all) => hold('away', !all.at(-1)!.isIntersecting));
  sight.observe(hero);
  // Asked for while the page is open: it stops at once.
  on('change', matchMedia('(prefers-reduced-motion: reduce)'), () => isStill() && set(false));
  swiped(row, 40, turn, gone);
  // It left the page: as it stood before this script, so that it can be begun again.
  gone.onabort = () => {
    set(false);
    sight.disconnect();
    controls.remove();
    hero.classList.remove('dusky-runs', 'dusky-changed');
    for (const slide of slides) {
      slide.inert = false;
      slide.classList.remove('dusky-far');
    }
  };
  show(0);
  set(playing);
});
