import type { Problem } from '@lathica/core/result'
import type { OpenCascade } from './openCascade'

/** Something the kernel could not do, with what mends it. */
export class KernelFault extends Error {
  constructor(
    readonly code: string,
    message: string,
    readonly mend: string,
    /** How many operations of the plan it takes to come to it; undefined for none of them. */
    readonly after?: number,
  ) {
    super(message)
  }

  get problem(): Problem {
    return { code: this.code, message: this.message, mend: this.mend }
  }
}

/** Whatever was thrown, as a fault that can be told. */
export function faultOf(oc: OpenCascade, thrown: unknown, after?: number): KernelFault {
  if (thrown instanceof KernelFault) {
    const { code, message, mend } = thrown
    return new KernelFault(code, message, mend, thrown.after ?? after)
  }
  return new KernelFault(
    'kernel.failed',
    `The solid kernel could not do this: ${reasonOf(oc, thrown)}.`,
    'Change a size by a little, or set the step aside.',
    after,
  )
}

function reasonOf(oc: OpenCascade, thrown: unknown): string {
  if (typeof WebAssembly !== 'undefined' && thrown instanceof WebAssembly.Exception) {
    const [type, text] = oc.getExceptionMessage(thrown)
    return text === '' ? type : text
  }
  return thrown instanceof Error ? thrown.message : String(thrown)
}
