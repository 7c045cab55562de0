// The package's types name the module, not the bundle of code and WebAssembly in one file that is used here.
declare module 'libheif-js/libheif-wasm/libheif-bundle.js' {
  import type { MainModule } from 'libheif-js/libheif-wasm/libheif.js';
  /** A decoder with a heap of its own. */
  export default function makeLibheif(): Omit<MainModule, 'HEAP32' | 'HEAPU8'> & {
    HEAP32: Int32Array;
    HEAPU8: Uint8Array;
  };
}
