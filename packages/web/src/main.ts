// Starts the web application: fonts, styles, what an earlier visit left behind, then the screens. Each comes by itself: what
// is evaluated in one go blocks the page for as long.
import '@fontsource-variable/atkinson-hyperlegible-mono/wght.css';
import '@fontsource-variable/atkinson-hyperlegible-next/wght.css';
import '@fontsource-variable/bricolage-grotesque/wght.css';
import './ui/styles.css';

const state = import('./server/state.ts');
const screens = import('./App.tsx');
const arrivals = import('./gather/arrivals.ts');
// Edits of an earlier visit are taken up before anything is shown.
await (await state).beginState();
(await screens).show(document.getElementById('root')!);
(await arrivals).watchArrivals();
