import {
  curvatureComb,
  drawAngles,
  inflectionsOf,
  jumpsOf,
  thicknessAlong,
  thinnest,
  type Drawn,
  type Joint,
  type Thickness,
  type Told,
} from '@lathica/core/inspect'
import { isFree, locator, piecesOf } from '@lathica/core/sketch'
import type { Section } from '@lathica/core/section'
import type { Vec } from '@lathica/core/geometry'
import { defineStore } from 'pinia'
import { computed } from 'vue'
import { useBoardStore } from './board'
import { useLookStore } from './look'
import { usePartStore } from './part'

/** What is looked at in the shape of an outline, drawn over the board. */
export type ShapeCheck =
  | {
      readonly kind: 'curvature'
      readonly comb: readonly (readonly Told[])[]
      readonly inflections: readonly Vec[]
      readonly jumps: readonly Joint[]
    }
  | {
      readonly kind: 'wall'
      readonly runs: readonly (readonly Thickness[])[]
      readonly least: Thickness | undefined
    }
  | { readonly kind: 'draw'; readonly drawn: readonly Drawn[]; readonly parting: number }

/** Places of a check are so far apart on the board, in pixels. */
const SPACING_PX = 5

/** The shape check that is switched on, worked out once for the board and for its card. */
export const useShapeCheck = defineStore('shapeCheck', () => {
  const board = useBoardStore()
  const look = useLookStore()
  const parts = usePartStore()

  /** What stands there, or what the profile in hand would be. */
  const sections = computed<readonly Section[]>(() => {
    if (board.sections.some((s) => s.regions.length > 0)) return board.sections
    const drawn = board.sketchState?.profile.section
    return drawn && !board.looksAtEnd ? [drawn] : []
  })
  /** The middle of the part along its axis, where the parting is until it is told. */
  const middle = computed(() => {
    const ends = sections.value.flatMap((s) => s.regions.flatMap((r) => r.outer))
    const xs = ends.flatMap((e) => [e.piece.from.x, e.piece.to.x])
    return xs.length > 0 ? (Math.min(...xs) + Math.max(...xs)) / 2 : 0
  })
  const parting = computed(() => look.parting ?? middle.value)

  const spacing = computed(() => SPACING_PX / (board.view?.scale ?? 1))
  const check = computed(() =>
    parts.part && look.check !== 'none' ? found(look.check) : undefined,
  )
  function found(kind: ShapeCheck['kind']): ShapeCheck {
    switch (kind) {
      case 'curvature': {
        const { sketch, picks } = board
        const locate = locator(sketch)
        const outline = sketch.entities.filter((e) => e.role === 'outline' && e.kind !== 'circle')
        const picked = outline.filter((e) => picks.includes(e.id))
        const wanted = picked.length > 0 ? picked : outline
        return {
          kind: 'curvature',
          comb: wanted.flatMap((e) => curvatureComb(piecesOf(e, locate), spacing.value)),
          inflections: wanted.filter(isFree).flatMap((e) => inflectionsOf(piecesOf(e, locate))),
          jumps: jumpsOf(sketch),
        }
      }
      case 'wall': {
        const runs = sections.value.flatMap((s) => thicknessAlong(s, spacing.value))
        return { kind: 'wall', runs, least: thinnest(runs) }
      }
      case 'draw': {
        const drawn = sections.value.flatMap((s) => drawAngles(s, parting.value, look.leastDraw))
        return { kind: 'draw', drawn, parting: parting.value }
      }
    }
  }
  return { check, parting }
})
