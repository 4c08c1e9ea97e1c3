import type { Problem } from '@lathica/core/result'
import { linesOf, type Sketch, type SketchLine, isEndSketch } from '@lathica/core/sketch'
import { createPart, type Part } from '@lathica/core/part'
import { evaluate, endMarksBefore, standingBefore } from '@lathica/core/route'
import { perform, type Command } from '@lathica/core/edit'
import {
  beginTool,
  type Ask,
  type Board,
  type FieldTarget,
  type ToolId,
  type ToolState,
} from '../../src/board/tools'
import type { SectionRef } from '../../src/board/refs'
import { USUAL, type Suggesting } from '../../src/board/snapping'
import { toScreen, type View } from '../../src/board/view'

/** Ten pixels to a millimetre, the datum point in the middle of a large pane. */
export const VIEW: View = { lie: 'lying', scale: 10, origin: { x: 500, y: 500 } }

/** A board without a page: a tool is worked at places in mm, and what it does is kept to look at. */
export class ToolBench {
  part: Part
  shown: Part | undefined
  picks: readonly string[] = []
  hover: string | undefined
  fields: FieldTarget[] = []
  told: string[] = []
  labels: string[] = []
  state: ToolState | undefined
  ask: Ask | undefined
  hoverRef: SectionRef | undefined
  view = VIEW
  suggesting: Suggesting = USUAL

  constructor(part: Part = createPart({ name: 'Spindle' })) {
    this.part = part
  }

  private readonly board: Board = {
    part: () => this.part,
    sketch: () => this.sketch,
    view: () => this.view,
    standing: () =>
      standingBefore(this.part, evaluate(this.part), this.sketch.id).map((b) => b.section),
    endMarks: () =>
      isEndSketch(this.sketch) ? endMarksBefore(this.part, evaluate(this.part), this.sketch) : [],
    picks: () => this.picks,
    setPicks: (ids) => (this.picks = ids),
    setHover: (id) => (this.hover = id),
    suggesting: () => this.suggesting,
    run: (command) => {
      const refused = this.attempt(command)
      if (refused) this.told.push(refused.message)
      return !refused
    },
    attempt: (command) => this.attempt(command),
    show: (part) => (this.shown = part),
    take: (label, part) => this.take(label, part),
    openField: (target) => this.fields.push(target),
    tell: (message) => this.told.push(message),
    asking: () => this.ask,
    setHoverRef: (ref) => (this.hoverRef = ref),
    finish: () => beginTool(this.board, 'pick') ?? { hint: '' },
  }

  private attempt(command: Command): Problem | undefined {
    const result = perform(this.part, command)
    if (result.ok) this.take(command.label, result.value)
    return result.ok ? undefined : result.problem
  }

  get lines(): SketchLine[] {
    return linesOf(this.sketch)
  }

  /** Types values into the fields that the tool in hand offers, and takes them. */
  type(...texts: readonly string[]): this {
    const result = this.state?.entry?.take(texts)
    if (!result) throw new Error('the tool takes no values now')
    if ('message' in result) this.told.push(result.message)
    else this.state = result
    return this
  }

  get sketch(): Sketch {
    const [sketch] = (this.shown ?? this.part).sketches
    if (!sketch) throw new Error('the part has no profile')
    return sketch
  }

  private take(label: string, part: Part): void {
    this.part = part
    this.labels.push(label)
    this.state = this.state?.refresh?.() ?? this.state
  }

  use(tool: ToolId): this {
    this.state = beginTool(this.board, tool)
    return this
  }

  /** Runs commands as the page would, with the tool in hand. */
  do(...commands: readonly Command[]): this {
    for (const command of commands) this.board.run(command)
    return this
  }

  private pointer(x: number, radius: number, shift = false) {
    return { px: toScreen(this.view, { x, y: radius }), shift }
  }

  move(x: number, radius: number, shift = false): this {
    this.state = this.state?.move?.(this.pointer(x, radius, shift)) ?? this.state
    return this
  }

  press(x: number, radius: number, shift = false): this {
    this.state = this.state?.press?.(this.pointer(x, radius, shift)) ?? this.state
    return this
  }

  release(x: number, radius: number, shift = false): this {
    this.state = this.state?.release?.(this.pointer(x, radius, shift)) ?? this.state
    return this
  }

  click(x: number, radius: number, shift = false): this {
    return this.move(x, radius, shift).press(x, radius, shift).release(x, radius, shift)
  }

  key(key: 'Tab' | 'Enter' | 'Backspace'): this {
    this.state = this.state?.key?.(key) ?? this.state
    return this
  }

  escape(): this {
    this.state = this.state?.escape?.()
    return this
  }

  get words(): string {
    return (this.state?.overlay?.words ?? []).join(' · ')
  }

  /** The kinds of constraints of the profile, sorted. */
  get ties(): string[] {
    return this.sketch.constraints.map((c) => c.kind).sort()
  }
}
