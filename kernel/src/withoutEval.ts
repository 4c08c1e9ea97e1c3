/**
 * The kernel's build writes its glue functions as text and has the engine compile them, which a page
 * with a strict content security policy forbids. They come in two shapes only; here both are put
 * together from closures instead, and the build itself stays as it is.
 */

type Fn = (...args: never[]) => unknown
type Env = Readonly<Record<string, Fn>>

/** Makes what `new Function(names, body)` would make of one of the build's texts. */
function glue(names: readonly string[] | string, body: string): (...values: Fn[]) => Fn {
  const list = typeof names === 'string' ? names.split(',').map((n) => n.trim()) : names
  return (...values) => {
    const env = Object.fromEntries(list.map((name, i) => [name, values[i]])) as Env
    return /^return function \(handle, methodName, destructorsRef, args\)/.test(body)
      ? methodCaller(body, env)
      : invoker(body, env)
  }
}

/** Takes arguments into the kernel's form, calls, clears up, and brings the result back. */
function invoker(body: string, env: Env): Fn {
  const count = /^return function \(([^)]*)\)/.exec(body)?.[1]?.match(/arg\d+/g)?.length ?? 0
  const collects = body.includes('var destructors = [];')
  const hasThis = body.includes('var thisWired = ')
  const returns = body.includes('return ret;')
  const call = env['invoker'] as unknown as (...args: unknown[]) => unknown
  const fn = env['fn']
  const run = env['runDestructors'] as unknown as (list: unknown[]) => void
  const fromWire = env['fromRetWire'] as unknown as (value: unknown) => unknown
  const wireThis = env['toClassParamWire'] as unknown as Wire
  const wires = Array.from({ length: count }, (_, i) => env[`toArg${i}Wire`] as unknown as Wire)
  // Which of the wired values are cleared one by one, in the order of the text.
  const first = hasThis ? 2 : 1
  const drops = [...body.matchAll(/^(\w+)_dtor\(\w+\);$/gm)].map(([, name = '']) => ({
    at: name === 'thisWired' ? 1 : first + Number(/\d+/.exec(name)?.[0] ?? 0),
    drop: env[`${name}_dtor`] as unknown as (value: unknown) => void,
  }))
  if (!fn || !call || wires.includes(undefined as never)) throw unknownGlue(body)
  return function (this: unknown, ...args: unknown[]) {
    const destructors = collects ? [] : null
    const wired = new Array<unknown>(first + count)
    wired[0] = fn
    if (hasThis) wired[1] = wireThis(destructors, this)
    for (let i = 0; i < count; i++) wired[first + i] = wires[i]?.(destructors, args[i])
    const result = call(...wired)
    if (destructors) run(destructors)
    else for (const { at, drop } of drops) drop(wired[at])
    return returns ? fromWire(result) : undefined
  } as Fn
}

type Wire = (destructors: unknown[] | null, value: unknown) => unknown

/** Calls a function, a method or a constructor of the page from within the kernel. */
function methodCaller(body: string, env: Env): Fn {
  const readers = Object.keys(env)
    .filter((name) => /^argFromPtr\d+$/.test(name))
    .map((name) => env[name] as unknown as (at: number) => unknown)
  const toValue = env['toValue'] as unknown as (handle: unknown) => unknown
  const nameOf = env['getStringOrSymbol'] as unknown as ((at: unknown) => string) | undefined
  const back = env['emval_returnValue'] as unknown as
    ((wire: unknown, destructors: unknown, value: unknown) => unknown) | undefined
  const wire = env['toReturnWire']
  const constructs = body.includes('new (toValue(handle))')
  const calls = nameOf !== undefined || body.includes('toValue(handle)')
  return ((handle: unknown, methodName: unknown, destructors: unknown, args: number) => {
    const values = readers.map((read, i) => read(args + 8 * i))
    let value: unknown
    if (constructs) value = Reflect.construct(toValue(handle) as typeof Object, values)
    else if (nameOf) {
      const owner = toValue(handle) as Record<string, (...all: unknown[]) => unknown>
      value = owner[nameOf(methodName)]?.(...values)
    } else if (calls) value = (toValue(handle) as (...all: unknown[]) => unknown)(...values)
    else value = values.at(-1)
    return back ? back(wire, destructors, value) : undefined
  }) as unknown as Fn
}

const unknownGlue = (body: string): Error =>
  new Error(
    `The kernel's build asks for a function of a shape not known here: ${body.slice(0, 80)}`,
  )

/**
 * Lets the build's glue be put together without compiling text, for as long as it loads and works in
 * this thread. Only for threads that do nothing else.
 */
export function installGlue(): void {
  const replaced = function (names: readonly string[], body: string): unknown {
    return glue(names, body)
  }
  // Functions go on being recognised as such.
  replaced.prototype = Function.prototype
  Object.defineProperty(globalThis, 'Function', {
    value: replaced,
    writable: true,
    configurable: true,
  })
}
