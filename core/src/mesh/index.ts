export { latheMesh, stepsRound, type LatheMesh, type MeshFace, type Span } from './lathe'
