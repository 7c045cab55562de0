// Files of films and of their captions, by their addresses.
import { linkProblem } from './link.ts';

/** Files of films in open formats. */
const FILM = /\.(webm|ogv|mp4)(?:[?#].*)?$/i;
/** WebVTT: The Web Video Text Tracks Format (W3C). */
const CAPTIONS = /\.vtt(?:[?#].*)?$/i;

export const isFilm = (address: string): boolean => FILM.test(address.trim());

/** What is wrong with the address of a film's captions, as a sentence, or null. Whatever is sent may be looked at. */
export function captionsProblem(address: unknown): string | null {
  if (typeof address !== 'string') return 'Captions of a film have an address.';
  return (
    linkProblem(address) ??
    (CAPTIONS.test(address.trim()) ? null : 'Captions are a WebVTT file: it ends with .vtt.')
  );
}
