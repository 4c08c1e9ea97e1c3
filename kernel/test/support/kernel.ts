import { loadKernel, type Kernel } from '../../src'

let made: Promise<Kernel> | undefined

/** One kernel for many files of tests: to load it and to compile it takes a second or two each time. */
export const sharedKernel = (): Promise<Kernel> => (made ??= loadKernel())
