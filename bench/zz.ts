import { routeRows } from './route'
console.table(routeRows().map((r) => ({ n: r.name, v: r.value, u: r.unit, g: r.goal })))
