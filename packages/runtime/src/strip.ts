// The filmstrip: the picture that is chosen below stands large above. Without this script the small ones lead to the files.
import { each } from './said.ts';

each('strip', (set) => {
  const stage = set.querySelector<HTMLElement>('.dusky-large')!;
  const links = [...set.querySelectorAll<HTMLAnchorElement>('a[data-dusky-open]')];
  const show = (link: HTMLAnchorElement) => {
    for (const one of links) one.ariaCurrent = one === link ? 'true' : null;
    stage.replaceChildren(link.closest('li')!.querySelector('template')!.content.cloneNode(true));
  };
  stage.ariaLive = 'polite';
  for (const link of links)
    link.addEventListener('click', (event) => {
      if (event.ctrlKey || event.metaKey || event.shiftKey) return;
      event.preventDefault();
      show(link);
    });
  links[0]!.ariaCurrent = 'true';
});
