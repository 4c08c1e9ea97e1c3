import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { createServer, type AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const ROOT = join(import.meta.dirname, '..')

/** Servers that run: they end with whoever started them. */
const running = new Set<ChildProcess>()
process.on('exit', () => running.forEach((child) => process.kill(-(child.pid ?? 0), 'SIGKILL')))

/** A server of its own process, as it is started by hand. */
export class ServerProcess {
  private constructor(
    private readonly child: ChildProcess,
    readonly base: string,
  ) {}

  static async start(database: string): Promise<ServerProcess> {
    const port = await freePort()
    const child = spawn(
      process.execPath,
      [
        join(ROOT, 'node_modules/tsx/dist/cli.mjs'),
        join(ROOT, 'server/src/main.ts'),
        ...['--database', database, '--port', String(port)],
      ],
      // In a group of its own, so that it ends with all it has started.
      {
        detached: true,
        stdio: ['ignore', 'pipe', 'ignore'],
        env: { ...process.env, LOG_LEVEL: 'silent' },
      },
    )
    running.add(child)
    child.once('exit', () => running.delete(child))
    const server = new ServerProcess(child, `http://127.0.0.1:${port}`)
    await new Promise<void>((resolve, reject) => {
      child.stdout?.on('data', (chunk: Buffer) => {
        if (chunk.toString().includes('is served')) resolve()
      })
      child.once('exit', () => reject(new Error('the server did not start')))
    })
    return server
  }

  /** The process that serves; it is a child of the one that was started. */
  private get pid(): number {
    const own = this.child.pid ?? 0
    const list = `/proc/${own}/task/${own}/children`
    // Not every system tells of children.
    const children = existsSync(list) ? readFileSync(list, 'utf8').trim().split(' ') : []
    return Number(children[0]) || own
  }

  /** What it holds in memory, in MB. */
  memory(): number {
    const told = /VmRSS:\s+(\d+) kB/.exec(readFileSync(`/proc/${this.pid}/status`, 'utf8'))
    return Number(told?.[1] ?? NaN) / 1024
  }

  /** What it has taken of processors since it began, in ms. */
  busy(): number {
    const fields = readFileSync(`/proc/${this.pid}/stat`, 'utf8').split(') ')[1]?.split(' ') ?? []
    // Fields 14 and 15 of the line, in hundredths of a second.
    return (Number(fields[11]) + Number(fields[12])) * 10
  }

  async kill(): Promise<void> {
    if (this.child.exitCode !== null || this.child.signalCode !== null) return
    const gone = once(this.child, 'exit')
    process.kill(-(this.child.pid ?? 0), 'SIGKILL')
    await gone
  }

  async call(method: string, path: string, body?: unknown): Promise<Response> {
    const isRaw = typeof body === 'string' || body instanceof Uint8Array
    return fetch(this.base + path, {
      method,
      headers: {
        // A connection that is kept may be closed just when it is used again; saves come too often for that.
        ...(method === 'PUT' ? {} : { connection: 'close' }),
        'content-type':
          body instanceof Uint8Array ? 'application/octet-stream' : 'application/json',
      },
      ...(body === undefined ? {} : { body: isRaw ? (body as BodyInit) : JSON.stringify(body) }),
    })
  }

  async newProject(): Promise<string> {
    const made = await this.call('POST', '/api/projects', { name: 'Skerry Point tide gauge' })
    return ((await made.json()) as { id: string }).id
  }

  async newPart(project: string, document: object): Promise<string> {
    const made = await this.call('POST', `/api/projects/${project}/parts`, { document })
    return ((await made.json()) as { id: string }).id
  }
}

async function freePort(): Promise<number> {
  const probe = createServer().listen(0, '127.0.0.1')
  await once(probe, 'listening')
  const { port } = probe.address() as AddressInfo
  probe.close()
  await once(probe, 'close')
  return port
}

/** Does something with a folder that is gone afterwards. */
export async function withFolder<T>(work: (folder: string) => Promise<T>): Promise<T> {
  const folder = mkdtempSync(join(tmpdir(), 'lathica-soak-'))
  try {
    return await work(folder)
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
}
