import { kernelRows } from './kernel'
import { routeRows } from './route'
const rows = [...routeRows(), ...(await kernelRows())]
console.table(rows.map((r) => ({ n: r.name, v: r.value, u: r.unit, g: r.goal })))
