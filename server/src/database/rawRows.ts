/**
 * Rows of a SQLite file read from its pages, one by one, without the tables they belong to: what a damaged page
 * leads to is found all the same. (SQLite database file format, sections 1.2, 1.6, 2.1 and 4: header, b-tree pages,
 * records, write-ahead log.)
 */

/** What stands in a column: bytes that are no text are left out. */
export type RawValue = string | number | null

type Pages = (number: number) => Uint8Array | undefined

const LEAF_OF_TABLE = 0x0d
/** What the first page begins with before its own header, in bytes. */
const FILE_HEADER = 100
const USUAL_PAGE = 4096

/**
 * Every row that some page of the file or of its log holds; a row may come more than once, as older pages hold it.
 * @param file the bytes of the database
 * @param log the bytes of its write-ahead log, empty if there is none
 */
export function* rawRows(file: Uint8Array, log: Uint8Array): Generator<RawValue[]> {
  const size = pageSizeOf(file, log)
  const inFile = Math.floor(file.length / size)
  const logged = loggedPages(log, size)
  const pages: Pages = (n) =>
    logged.get(n) ?? (n >= 1 && n <= inFile ? file.subarray((n - 1) * size, n * size) : undefined)
  const usable = size - (hasHeader(file) ? (file[20] ?? 0) : 0)
  const numbers = new Set([...Array.from({ length: inFile }, (_, i) => i + 1), ...logged.keys()])
  for (const n of numbers) {
    const page = pages(n)
    if (page) yield* rowsOn(page, n === 1 ? FILE_HEADER : 0, usable, pages)
  }
}

const viewOf = (bytes: Uint8Array): DataView =>
  new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)

/** Whether the file says of itself what it is; what else its header says is not to be gone by otherwise. */
const hasHeader = (file: Uint8Array): boolean =>
  new TextDecoder().decode(file.subarray(0, 15)) === 'SQLite format 3'

function pageSizeOf(file: Uint8Array, log: Uint8Array): number {
  const told = hasHeader(file) && file.length >= 18 ? viewOf(file).getUint16(16) : 0
  const size = told === 1 ? 65536 : told
  const isOne = (n: number): boolean => n >= 512 && n <= 65536 && (n & (n - 1)) === 0
  if (isOne(size)) return size
  const inLog = log.length >= 12 ? viewOf(log).getUint32(8) : 0
  return isOne(inLog) ? inLog : USUAL_PAGE
}

const LOG_HEADER = 32
const FRAME_HEADER = 24

/** The pages of a log by number, as its last commit left them. */
function loggedPages(log: Uint8Array, size: number): ReadonlyMap<number, Uint8Array> {
  const committed = new Map<number, Uint8Array>()
  const open = new Map<number, Uint8Array>()
  const view = viewOf(log)
  for (let at = LOG_HEADER; at + FRAME_HEADER + size <= log.length; at += FRAME_HEADER + size) {
    // Frames of an earlier round have other salts than the log.
    const isCurrent =
      view.getUint32(at + 8) === view.getUint32(16) &&
      view.getUint32(at + 12) === view.getUint32(20)
    if (!isCurrent) break
    open.set(view.getUint32(at), log.subarray(at + FRAME_HEADER, at + FRAME_HEADER + size))
    if (view.getUint32(at + 4) === 0) continue
    open.forEach((page, n) => committed.set(n, page))
    open.clear()
  }
  return committed
}

function* rowsOn(
  page: Uint8Array,
  header: number,
  usable: number,
  pages: Pages,
): Generator<RawValue[]> {
  if (page[header] !== LEAF_OF_TABLE) return
  const view = viewOf(page)
  const count = view.getUint16(header + 3)
  for (let i = 0; i < count; i++) {
    const pointer = header + 8 + 2 * i
    if (pointer + 2 > page.length) return
    const record = recordAt(page, view.getUint16(pointer), usable, pages)
    const row = record && valuesOf(record)
    if (row) yield row
  }
}

/** The record of a cell, put together with what runs over onto other pages; undefined where that is torn. */
function recordAt(
  page: Uint8Array,
  cell: number,
  usable: number,
  pages: Pages,
): Uint8Array | undefined {
  const [length, afterLength] = varint(page, cell)
  const [, start] = varint(page, afterLength)
  const most = usable - 35
  const least = Math.floor(((usable - 12) * 32) / 255) - 23
  if (length <= 0 || length > MOST_BYTES) return undefined
  if (length <= most) {
    return start + length <= page.length ? page.subarray(start, start + length) : undefined
  }
  const fitting = least + ((length - least) % (usable - 4))
  const local = fitting <= most ? fitting : least
  if (start + local + 4 > page.length) return undefined
  const record = new Uint8Array(length)
  record.set(page.subarray(start, start + local))
  let filled = local
  let next = viewOf(page).getUint32(start + local)
  while (filled < length) {
    const over = pages(next)
    if (!over) return undefined
    const part = over.subarray(4, 4 + Math.min(usable - 4, length - filled))
    record.set(part, filled)
    filled += part.length
    next = viewOf(over).getUint32(0)
  }
  return record
}

/** Longer records than this are none of ours. */
const MOST_BYTES = 100_000_000
const MOST_COLUMNS = 100

const text = new TextDecoder('utf-8', { fatal: true })

/** The columns of a record; undefined where it is none. */
function valuesOf(record: Uint8Array): RawValue[] | undefined {
  const view = viewOf(record)
  const [header, first] = varint(record, 0)
  if (header < 1 || header > record.length) return undefined
  const values: RawValue[] = []
  let body = header
  for (let at = first; at < header && values.length < MOST_COLUMNS;) {
    const [type, after] = varint(record, at)
    at = after
    const length = type >= 12 ? Math.floor((type - 12) / 2) : (LENGTHS[type] ?? -1)
    if (length < 0 || body + length > record.length) return undefined
    const value = valueAt(view, body, type, length)
    if (value === undefined) return undefined
    values.push(value)
    body += length
  }
  return values
}

/** How many bytes a value of each of the first types takes; −1 for those that are not used. */
const LENGTHS = [0, 1, 2, 3, 4, 6, 8, 8, 0, 0, -1, -1]

function valueAt(view: DataView, at: number, type: number, length: number): RawValue | undefined {
  if (type === 0) return null
  if (type === 7) return view.getFloat64(at)
  if (type >= 8 && type <= 9) return type - 8
  if (type <= 6) {
    let value = view.getInt8(at)
    for (let i = 1; i < length; i++) value = value * 256 + view.getUint8(at + i)
    return value
  }
  if (type % 2 === 0) return null
  try {
    return text.decode(new Uint8Array(view.buffer, view.byteOffset + at, length))
  } catch {
    return undefined
  }
}

/** A number in seven bits a byte, and the place behind it. */
function varint(bytes: Uint8Array, at: number): readonly [number, number] {
  let value = 0
  for (let i = 0; i < 8; i++) {
    const byte = bytes[at + i]
    if (byte === undefined) return [-1, at + i]
    value = value * 128 + (byte & 0x7f)
    if (byte < 0x80) return [value, at + i + 1]
  }
  return [value * 256 + (bytes[at + 8] ?? 0), at + 9]
}
