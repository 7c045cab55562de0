// A film in the place of its poster: nothing of it is loaded before somebody asks for it. Without this script the poster leads
// to the file.
import { clicked, each } from './said.ts';

each('film', (link, said, gone) => {
  const play = () => {
    const picture = link.querySelector('img')!;
    const film = document.createElement('video');
    film.src = (link as HTMLAnchorElement).href;
    film.controls = true;
    film.playsInline = true;
    // What the poster was stands for the film until it begins, and its ratio holds the place.
    film.poster = picture.currentSrc;
    film.style.aspectRatio = `${picture.width} / ${picture.height}`;
    film.ariaLabel = said.title ?? picture.alt;
    // Captions are shown where they are in the page's language; others can be chosen.
    for (const [lang, label, address] of JSON.parse(said.tracks ?? '[]') as string[][]) {
      const track = document.createElement('track');
      track.kind = 'captions';
      track.srclang = lang!;
      track.label = label!;
      track.src = address!;
      track.default = link.closest('[lang]')?.getAttribute('lang') === lang;
      film.append(track);
    }
    link.replaceWith(film);
    film.focus();
    void film.play().catch(() => undefined);
  };
  clicked(link, play, gone);
});
