import init from 'replicad-opencascadejs'
import { createKernel, type Kernel } from './kernel'

/** The kernel's code from where it lies, compiled; a browser keeps what it compiled for the next visit. */
export const compileKernel = (wasm: string): Promise<WebAssembly.Module> =>
  WebAssembly.compileStreaming(fetch(wasm))

/**
 * Loads the kernel into this thread, which takes about a second; a fifth of that where its code is compiled already.
 * @param code its code as it was compiled, in this thread or another; in Node it is found by itself
 */
export async function loadKernel(code?: WebAssembly.Module): Promise<Kernel> {
  const quiet = { print() {}, printErr() {} }
  if (!code) return createKernel(await init(quiet))
  const oc = await new Promise<Awaited<ReturnType<typeof init>>>((resolve, reject) => {
    const instantiateWasm = (imports: WebAssembly.Imports, done: Instantiated): object => {
      WebAssembly.instantiate(code, imports).then((made) => done(made, code), reject)
      return {}
    }
    init({ ...quiet, instantiateWasm }).then(resolve, reject)
  })
  return createKernel(oc)
}

type Instantiated = (made: WebAssembly.Instance, code: WebAssembly.Module) => void
