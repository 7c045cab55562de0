// Words as they travel inside a picture: an XMP packet (ISO 16684-1) with the properties of the IPTC Photo Metadata
// Standard 2023.1. It is put into a file when the file goes out, so that other words need no new picture.
import type { Language, OutputFormat, Policy, Words } from '../contract/index.ts';
import { escapeHtml } from '../html/html.ts';

/** Formats whose files take a packet. Drawings and GIFs are what the page makes of them, and carry none. */
export const takesPacket = (format: OutputFormat): boolean => format !== 'svg' && format !== 'gif';

/** A JPEG has room for 65,502 bytes in one segment; all formats keep to what fits there. */
const MOST_BYTES = 64_000;

const PROPERTIES = {
  credit: (text: string) => [
    `<photoshop:Credit>${text}</photoshop:Credit>`,
    `<dc:creator><rdf:Seq><rdf:li>${text}</rdf:li></rdf:Seq></dc:creator>`,
  ],
  rights: (text: string, language: Language) => [alternative('dc:rights', text, language)],
  alt: (text: string, language: Language) => [
    alternative('Iptc4xmpCore:AltTextAccessibility', text, language),
  ],
  longDescription: (text: string, language: Language) => [
    alternative('Iptc4xmpCore:ExtDescrAccessibility', text, language),
  ],
  caption: (text: string, language: Language) => [alternative('dc:description', text, language)],
  title: (text: string, language: Language) => [
    alternative('dc:title', text, language),
    `<photoshop:Headline>${text}</photoshop:Headline>`,
  ],
};

/** A language alternative: its first item stands for all languages, and the second says which one that is. */
const alternative = (name: string, text: string, language: Language): string =>
  `<${name}><rdf:Alt><rdf:li xml:lang="x-default">${text}</rdf:li><rdf:li xml:lang="${language}">${text}</rdf:li></rdf:Alt></${name}>`;

/** Text for XML 1.0, which has no control characters but these three, and no halves of surrogate pairs. */
const xmlText = (text: string, most: number): string =>
  escapeHtml(
    Array.from(text.replace(/\r\n?/g, '\n'))
      .slice(0, most)
      .join('')
      // eslint-disable-next-line no-control-regex -- exactly these can't be written in XML
      .replace(/[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]|\p{Cs}/gu, ''),
  );

/**
 * The packet of a photo's files, or "" where the policy lets no words out or there are none. A decorative photo has no
 * alt text there either. Texts too long for a file are cut, all at the same length.
 * @param language BCP 47 tag of the words
 */
export function wordsPacket(
  words: Words,
  { metadata = 'none' }: Pick<Policy, 'metadata'>,
  language: Language,
): string {
  if (metadata === 'none') return '';
  const { credit, title, caption, longDescription } = words;
  const alt = words.role === 'decorative' ? '' : words.alt;
  const parts = {
    credit,
    rights: credit,
    ...(metadata === 'words' && { alt, longDescription, caption, title }),
  };
  const written = (most: number): string =>
    Object.entries(parts)
      .filter(([, text]) => text.trim() !== '')
      .flatMap(([name, text]) =>
        PROPERTIES[name as keyof typeof PROPERTIES](xmlText(text.trim(), most), escapeHtml(language)),
      )
      .join('');
  let most = 20_000;
  let properties = written(most);
  while (new TextEncoder().encode(properties).length > MOST_BYTES)
    properties = written((most = Math.floor(most / 2)));
  if (properties === '') return '';
  return (
    '<?xpacket begin="\uFEFF" id="W5M0MpCehiHzreSzNTczkc9d"?>' +
    '<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">' +
    '<rdf:Description rdf:about="" xmlns:dc="http://purl.org/dc/elements/1.1/"' +
    ' xmlns:photoshop="http://ns.adobe.com/photoshop/1.0/"' +
    ' xmlns:Iptc4xmpCore="http://iptc.org/std/Iptc4xmpCore/1.0/xmlns/">' +
    `${properties}</rdf:Description></rdf:RDF></x:xmpmeta><?xpacket end="r"?>`
  );
}
