// Builds what ships inside a hand-over: a script and a stylesheet for each feature, small and on their own.
import { readdirSync, rmSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { build } from 'vite';

const at = (/** @type {string} */ path) => fileURLToPath(new URL(path, import.meta.url));

/**
 * What stands in a layer is !important there, and so outranks a page's own rules that are !important outside of layers,
 * whatever their selectors (CSS Cascading and Inheritance 5, 6.1).
 * @type {import('vite').CSSOptions['postcss']}
 */
const outranking = {
  plugins: [
    {
      postcssPlugin: 'outranking',
      AtRule: {
        layer: (layer) =>
          layer.walkDecls((declaration) => {
            declaration.important = true;
          }),
      },
    },
  ],
};

rmSync(at('dist'), { recursive: true, force: true });
for (const file of readdirSync(at('src'))) {
  const [name, ending] = file.split('.');
  if (file.includes('.test.')) continue;
  // Features have an entry of their own; what they share is bundled into each.
  if (ending !== 'css' && !['viewer', 'rotating', 'strip', 'zoom', 'film'].includes(name)) continue;
  await build({
    configFile: false,
    root: at('.'),
    logLevel: 'warn',
    css: { postcss: outranking },
    build: {
      emptyOutDir: false,
      outDir: at('dist'),
      // What browsers of 2021 read.
      target: ['chrome90', 'firefox90', 'safari15'],
      cssMinify: 'lightningcss',
      rolldownOptions: {
        input: at(`src/${file}`),
        output: {
          format: ending === 'css' ? 'es' : 'iife',
          entryFileNames: `${name}.js`,
          assetFileNames: `${name}.css`,
        },
      },
    },
  });
}
