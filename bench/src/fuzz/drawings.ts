// Drawings of a few kB that would keep a browser busy, and drawings that try to load something from elsewhere.

export interface NamedDrawing {
  name: string;
  svg: string;
}

const drawn = (inner: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="0 0 300 200" width="300" height="200">${inner}</svg>`;
const FULL = 'width="300" height="200"';
const NOISE =
  '<filter id="f" x="0" y="0" width="1" height="1"><feTurbulence numOctaves="9" baseFrequency=".04"/></filter>';
const BLUR = '<filter id="f"><feGaussianBlur stdDeviation="40"/></filter>';
const named = (all: Record<string, string>): NamedDrawing[] =>
  Object.entries(all).map(([name, inner]) => ({ name, svg: drawn(inner) }));

/** Dear in each way that a browser pays for; some are honest, and cheap. */
export const dearDrawings = (): NamedDrawing[] =>
  named({
    'noise by a style element': `<style>.a{filter:url(#f)}</style>${NOISE}${`<rect class="a" ${FULL}/>`.repeat(60)}`,
    'noise by a style attribute': NOISE + `<rect style="filter:url(#f)" ${FULL}/>`.repeat(60),
    'noise by everything': `<style>*{filter:url(#f)}</style>${NOISE}${'<g><path d="M0 0h9v9z"/></g>'.repeat(50)}`,
    'noise by an escaped name': `<style>.a{f\\69lter:u\\72l(#f)}</style>${NOISE}${`<rect class="a" ${FULL}/>`.repeat(60)}`,
    'noise in groups inside each other':
      NOISE + '<g filter="url(#f)">'.repeat(40) + `<rect ${FULL}/>` + '</g>'.repeat(40),
    'blur of many': BLUR + `<rect filter="url(#f)" ${FULL}/>`.repeat(40),
    'blur that is named': `<rect style="filter:blur(60px)" ${FULL}/>`.repeat(40),
    'a few blurs of icons': BLUR + '<circle cx="9" cy="9" r="6" filter="url(#f)"/>'.repeat(12),
    morphology: `<filter id="f"><feMorphology radius="90"/></filter>${`<rect filter="url(#f)" ${FULL}/>`.repeat(8)}`,
    kernels: `<filter id="f"><feConvolveMatrix order="11" kernelMatrix="${'1 '.repeat(121)}"/></filter>${`<rect filter="url(#f)" ${FULL}/>`.repeat(8)}`,
    lights: `<filter id="f"><feSpecularLighting><fePointLight x="9" y="9" z="40"/></feSpecularLighting></filter>${`<rect filter="url(#f)" ${FULL}/>`.repeat(20)}`,
    masks: `<style>.m{mask:url(#m)}</style><mask id="m"><rect fill="#888" ${FULL}/></mask>${`<rect class="m" ${FULL}/>`.repeat(300)}`,
    'masks inside each other': `<mask id="m"><rect fill="#888" ${FULL}/></mask>${'<g mask="url(#m)">'.repeat(60)}<rect ${FULL}/>${'</g>'.repeat(60)}`,
    patterns: `<style>rect{fill:url(#p)}</style><pattern id="p" width=".01" height=".01"><circle r="9"/><circle r="4"/></pattern>${`<rect ${FULL}/>`.repeat(300)}`,
    blending: `<rect style="mix-blend-mode:multiply" fill="#eee" ${FULL}/>`.repeat(300),
    'groups that are half seen': `<g opacity=".9"><rect ${FULL}/><path d="M0 0h9"/></g>`.repeat(300),
    'painted over': `<rect fill="teal" ${FULL}/>`.repeat(15_000),
    'painted over, scaled':
      `<rect fill="teal" fill-opacity=".5" transform="scale(300)" width="1" height="1"/>`.repeat(15_000),
    'painted over by reference': `<defs><g id="a">${`<rect fill="teal" ${FULL}/>`.repeat(100)}</g><g id="b">${'<use href="#a"/>'.repeat(100)}</g></defs>${'<use href="#b"/>'.repeat(15)}`,
    gradients: `<radialGradient id="g"><stop stop-color="red"/><stop offset="1" stop-color="blue"/></radialGradient>${`<rect fill="url(#g)" ${FULL}/>`.repeat(800)}`,
    markers: `<marker id="m" markerWidth="9" markerHeight="9"><circle r="4"/><circle r="3"/></marker><path marker-mid="url(#m)" d="M0 0${'L9 9L99 40'.repeat(20_000)}"/>`,
    dashes: '<path d="M0 0L300 200" stroke="red" stroke-dasharray=".0005"/>'.repeat(60),
    'a path of points': `<path fill="none" stroke="red" stroke-linejoin="round" stroke-width="40" d="M0 0${'L300 200L9 150'.repeat(60_000)}"/>`,
    'an honest illustration': `<rect fill="#cde" ${FULL}/>${Array.from({ length: 4_000 }, (_, n) => `<path d="M${n % 300} ${(n * 7) % 200}l3 1l-1 3z" fill="#${(n % 4096).toString(16).padStart(3, '0')}"/>`).join('')}`,
  });

/** Each would fetch from elsewhere if it were left as it is. */
export const fetchingDrawings = (elsewhere: string): NamedDrawing[] =>
  named({
    'import in pieces': `<style>@im@import;port url(${elsewhere}/1);</style><rect ${FULL}/>`,
    'import, escaped': `<style>@\\69mport "${elsewhere}/2";</style><rect ${FULL}/>`,
    'url, escaped': `<style>rect{fill:u\\72l(${elsewhere}/3#a)}</style><rect ${FULL}/>`,
    'image-set': `<style>rect{mask-image:image-set("${elsewhere}/4" 1x)}</style><rect ${FULL}/>`,
    'a long address': `<style>rect{mask:url("${elsewhere}/${'a'.repeat(900)}")}</style><rect ${FULL}/>`,
    'an attribute, escaped': `<rect fill="u\\72l(${elsewhere}/5#a)" mask='url("${elsewhere}/${'b'.repeat(900)}")' ${FULL}/>`,
    'CDATA and comments': `<style><![CDATA[@import "${elsewhere}/6";]]></style><style>/*</style><style>*/@import "${elsewhere}/7";</style><rect ${FULL}/>`,
    'a moving picture': `<image width="9" height="9"><animate attributeName="href" to="${elsewhere}/8"/><set attributeName="xlink:href" to="${elsewhere}/9"/></image>`,
    'fonts and cursors': `<style>@font-face{font-family:x;src:url(${elsewhere}/10)}text{font-family:x;cursor:url(${elsewhere}/11),auto}</style><rect cursor="url(${elsewhere}/12)" ${FULL}/>`,
    'other documents': `<use href="${elsewhere}/13#a"/><image href="${elsewhere}/14" ${FULL}/><filter id="f"><feImage href="${elsewhere}/15"/></filter><rect filter="url(${elsewhere}/16#f)" ${FULL}/>`,
    'foreign content': `<foreignObject ${FULL}><iframe xmlns="http://www.w3.org/1999/xhtml" src="${elsewhere}/17"/></foreignObject><script href="${elsewhere}/18"/><rect ${FULL}/>`,
  });
