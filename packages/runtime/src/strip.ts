// The filmstrip: the picture that is chosen below stands large above. Without this script the small ones lead to the files.
import { clicked, each, largeBehind } from './said.ts';

each('strip', (set, _, gone) => {
  const stage = set.querySelector<HTMLElement>('.dusky-large')!;
  const links = [...set.querySelectorAll<HTMLAnchorElement>('a[data-dusky-open]')];
  const show = (link: HTMLAnchorElement) => {
    for (const one of links) one.ariaCurrent = one === link ? 'true' : null;
    stage.replaceChildren(largeBehind(link));
  };
  stage.ariaLive = 'polite';
  for (const link of links) clicked(link, () => show(link), gone);
  links[0]!.ariaCurrent = 'true';
});
