import { spawn } from 'node:child_process'

export interface Served {
  readonly origin: string
  readonly stop: () => void
}

/** Serves the built interface with the demo project from a database in memory. */
export async function serveDemo(port: number): Promise<Served> {
  const origin = `http://127.0.0.1:${port}`
  const place = ['--database', ':memory:', '--port', String(port)]
  const server = spawn(
    process.execPath,
    [
      'node_modules/tsx/dist/cli.mjs',
      'server/src/main.ts',
      ...['--web', 'web/dist', '--demo', 'demo', ...place],
    ],
    { stdio: 'ignore', env: { ...process.env, LOG_LEVEL: 'silent' } },
  )
  const stop = (): void => void server.kill()
  for (let tries = 0; tries < 150; tries++) {
    const answer = await fetch(`${origin}/api/projects`).catch(() => undefined)
    if (answer?.ok === true) return { origin, stop }
    await new Promise((done) => setTimeout(done, 100))
  }
  stop()
  throw new Error('the server did not start')
}
