export { latheMesh, stepsRound, type LatheMesh, type MeshFace, type Span } from './lathe'
export { hitsOnTurned, type Place, type TurnedHit } from './ray'
export { silhouetteOf, type Eye } from './silhouette'
