export { latheMesh, stepsRound, type LatheMesh, type MeshFace } from './lathe'
