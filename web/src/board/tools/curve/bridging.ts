import { distance } from '@lathica/core/geometry'
import { locator } from '@lathica/core/sketch'
import { bridgeEnds, openEnds, type Bridge, type BridgeShape } from '@lathica/core/edit'
import { readFields } from '../entry'
import { toScreen } from '../../view'
import { piecesAfter } from '../edit/preview'
import type { Board, EntryField, PointerAt, ToolState } from '../tool'

/** So near to an open end, in pixels, a click takes it. */
const REACH = 14

const FIELDS: readonly EntryField[] = [
  { label: 'fullness at the first', want: 'number', now: 1 },
  { label: 'at the second', want: 'number', now: 1 },
]

/** What Tab goes through, and how the sentence for each begins. */
const SHAPES: readonly (readonly [BridgeShape, string])[] = [
  ['smooth', 'A curve, smooth at both ends'],
  ['bend', 'A curve, smooth in curvature at both ends'],
  ['round', 'An arc, smooth at the first end'],
  ['flat', 'A straight line'],
]

/** Joins two open ends; picked ones are taken at once. */
export function bridging(board: Board): ToolState {
  const open = new Set(openEnds(board.sketch()))
  const [a, b, ...more] = board.picks().filter((p) => open.has(p))
  if (a !== undefined && b !== undefined && more.length === 0) return shaping(board, [a, b], 0)
  board.setPicks([])
  return choosing(board)
}

/** Waits for the first open end, then for the second. */
function choosing(board: Board, first?: string): ToolState {
  const locate = locator(board.sketch())
  const under = ({ px }: PointerAt): string | undefined => {
    const near = openEnds(board.sketch())
      .filter((p) => p !== first)
      .map((id) => ({ id, off: distance(toScreen(board.view(), locate(id)), px) }))
      .sort((p, q) => p.off - q.off)[0]
    return near && near.off <= REACH ? near.id : undefined
  }
  const state: ToolState = {
    hint:
      first === undefined
        ? 'Click an open end that is to be bridged.'
        : 'Click the open end that it is to be joined with.',
    cursor: 'crosshair',
    ...(first === undefined ? {} : { overlay: { marks: [locate(first)] } }),
    move: (at) => {
      board.setHover(under(at))
      return state
    },
    press: (at) => {
      const id = under(at)
      if (id === undefined) return state
      return first === undefined ? choosing(board, id) : shaping(board, [first, id], 0)
    },
    escape: () => (first === undefined ? undefined : choosing(board)),
    refresh: () => choosing(board),
  }
  return state
}

/** Shows the bridge; Tab gives it another shape, figures make it fuller, a click or Enter takes it. */
function shaping(board: Board, ends: readonly [string, string], turn: number): ToolState {
  const [shape, words] = SHAPES[turn % SHAPES.length] ?? ['smooth', '']
  const asked = (fullness: readonly [number, number] = [1, 1]): Bridge => ({
    ...{ sketch: board.sketch().id, ends, shape, fullness },
  })
  const curved = shape === 'smooth' || shape === 'bend'
  const typed = (texts: readonly string[]) => {
    const values = readFields(board, FIELDS, texts)
    return values.ok ? asked([values.value[0] ?? 1, values.value[1] ?? 1]) : values.problem
  }
  const take = (): ToolState =>
    board.run(bridgeEnds(asked())) ? board.finish() : shaping(board, ends, turn)
  const shown = (bridge: Bridge) => {
    const rubber = piecesAfter(board, bridgeEnds(bridge))
    return { rubber, turned: rubber }
  }
  return {
    hint: `${words}; Tab for another, ${curved ? 'type how full, ' : ''}click or Enter takes it.`,
    cursor: 'crosshair',
    overlay: shown(asked()),
    ...(curved
      ? {
          entry: {
            fields: FIELDS,
            take: (texts) => {
              const bridge = typed(texts)
              if ('message' in bridge) return bridge
              return board.attempt(bridgeEnds(bridge)) ?? board.finish()
            },
            preview: (texts) => {
              const bridge = typed(texts)
              return 'message' in bridge ? undefined : shown(bridge)
            },
          },
        }
      : {}),
    press: take,
    key: (key) => {
      if (key === 'Tab') return shaping(board, ends, turn + 1)
      return key === 'Enter' ? take() : undefined
    },
    escape: () => choosing(board),
    refresh: () => choosing(board),
  }
}
