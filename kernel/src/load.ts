import init from 'replicad-opencascadejs'
import { createKernel, type Kernel } from './kernel'

/**
 * Loads the kernel into this thread, which takes about a second.
 * @param wasm where the compiled kernel lies; in Node it is found by itself
 */
export async function loadKernel(wasm?: string): Promise<Kernel> {
  const quiet = { print() {}, printErr() {} }
  const options =
    wasm === undefined
      ? quiet
      : { ...quiet, locateFile: (path: string) => (path.endsWith('.wasm') ? wasm : path) }
  return createKernel(await init(options))
}
