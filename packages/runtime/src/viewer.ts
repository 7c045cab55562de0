// The viewer: a click on a picture opens it large over the page, with those beside it. Without this script the same link
// leads to the file. Each picture has an address of its own, which opens it again.
import {
  button,
  clicked,
  counted,
  each,
  fetchAhead,
  isMirrored,
  isStill,
  largeBehind,
  swiped,
  type Said,
} from './said.ts';

/** How long each stands while the viewer plays, ms. */
const STANDS = 5000;
/** A finger that goes so far sideways turns the page, CSS px. */
const SWIPE = 48;

each('viewer', (set, said, gone) => {
  const links = [...set.querySelectorAll<HTMLAnchorElement>('a[data-dusky-open]')];
  // Where no file is offered a link leads to where its picture is opened.
  for (const link of links) link.href ||= addressOf(link);
  const open = (n: number) => view(links, n, said, set, gone);
  links.forEach((link, n) => clicked(link, () => open(n), gone));
  const named = () => {
    const n = links.findIndex((link) => addressOf(link) === location.hash);
    if (n >= 0 && !document.querySelector('.dusky-viewer[open]')) open(n);
  };
  addEventListener('hashchange', named, { signal: gone });
  named();
});

function addressOf(link: HTMLAnchorElement): string {
  return `#${link.dataset.duskyOpen}`;
}

function view(links: HTMLAnchorElement[], first: number, said: Said, set: Element, gone: AbortSignal): void {
  const dialog = document.createElement('dialog');
  const stage = document.createElement('div');
  const bar = document.createElement('div');
  const count = document.createElement('span');
  const save = document.createElement('a');
  const before = location.href.replace(/#.*/, '');
  // A gallery of several pages counts all of its pictures, and goes on to those of another page there.
  const [earlier, all] = [Number(said.from ?? 0), Number(said.all ?? links.length)];
  const isOurs = () => links.some((link) => addressOf(link) === location.hash);
  // Opened by its address there is nothing of this page to go back to; opened by a click, Back closes it.
  const isPushed = !isOurs();
  let at = first;
  let playing = 0;
  dialog.className = 'dusky-viewer';
  dialog.dir = isMirrored(set) ? 'rtl' : 'ltr';
  dialog.lang = said.lang ?? '';
  dialog.ariaLabel = set.getAttribute('aria-label') ?? '';
  stage.className = 'dusky-stage';
  bar.className = 'dusky-bar';
  count.ariaLive = 'polite';
  save.className = 'dusky-button dusky-save';
  save.ariaLabel = said.save ?? '';
  save.download = '';

  const show = (n: number) => {
    at = (n + links.length) % links.length;
    const link = links[at]!;
    stage.replaceChildren(largeBehind(link));
    count.textContent = counted(said.of!, earlier + at + 1, all);
    save.href = link.dataset.duskyFile ?? link.href;
    history.replaceState(history.state, '', before + addressOf(link));
    const [shown] = stage.querySelectorAll('img');
    shown?.style.setProperty('--dusky-is', `auto ${shown.width} / ${shown.height}`);
    // The next one only once this one is there.
    const ahead = () => {
      if (links[at] === link && dialog.open) fetchAhead(links[(at + 1) % links.length]!);
    };
    shown?.decode().then(ahead, ahead);
  };
  const go = (by: number) => {
    const away = at + by < 0 ? said.before : at + by >= links.length ? said.behind : undefined;
    if (away) location.assign(away);
    else show(at + by);
  };
  const play = (on: boolean) => {
    clearInterval(playing);
    playing = on ? window.setInterval(() => go(1), STANDS) : 0;
    dialog.classList.toggle('dusky-plays', on);
    playButton.ariaLabel = on ? said.pause! : said.play!;
    // Who listens is told of pictures that come by themselves by nobody.
    count.ariaLive = on ? 'off' : 'polite';
  };
  const turn = (by: number) => {
    play(false);
    go(by);
  };
  const playButton = button('play', said.play!, () => play(!playing));
  bar.append(count, playButton);
  if (said.save) bar.append(save);
  bar.append(button('close', said.close!, () => dialog.close()));
  dialog.append(bar, stage);
  if (all > 1)
    dialog.append(
      button('back', said.back!, () => turn(-1)),
      button('on', said.on!, () => turn(1)),
    );
  else playButton.remove();

  dialog.onkeydown = ({ key, target }) => {
    const forward = isMirrored(dialog) ? 'ArrowLeft' : 'ArrowRight';
    // A table or a folded text scrolls by its own keys.
    if (target instanceof Element && target.closest('details')) return;
    if (key === 'ArrowLeft' || key === 'ArrowRight') turn(key === forward ? 1 : -1);
    else if (key === 'Home' || key === 'End') show(key === 'Home' ? 0 : links.length - 1);
  };
  swiped(stage, SWIPE, turn);
  dialog.onclick = ({ target }) => {
    if (target === dialog || target === stage) dialog.close();
  };
  const close = () => dialog.close();
  const back = () => {
    if (!isOurs()) close();
  };
  addEventListener('popstate', back);
  gone.addEventListener('abort', close);
  dialog.onclose = () => {
    play(false);
    removeEventListener('popstate', back);
    gone.removeEventListener('abort', close);
    if (isOurs())
      if (isPushed) history.back();
      else history.replaceState(history.state, '', before);
    dialog.remove();
    // The page was scrolled to nowhere meanwhile; the focus goes back to the picture that was seen last.
    links[at]!.focus({ preventScroll: !isStill() && at === first });
  };
  document.body.append(dialog);
  dialog.showModal();
  if (isPushed) history.pushState(history.state, '', location.href);
  show(at);
}
