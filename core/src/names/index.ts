/**
 * How faces, edges, corners and places are called, as texts that hold when sizes change:
 *
 *     step12/e3         a face, or the edge of the section that it is seen as: step and what it is there
 *     step12/e3@2       one of several alike
 *     step1/e3|step1/e4 a corner of the section, where two edges meet; #2 after it: the second such
 *     step1/e3|axis     where an edge comes to the axis
 *     step12/e3&step1/e4  an edge of the solid, where two faces meet; #2 after it: its second stretch
 *     step1/e3:centre   a place that tells part of an edge
 *     sketch2.p5        a point of a sketch
 *
 * Only this folder writes and reads them.
 */
export * from './faces'
export * from './corners'
export * from './places'
export * from './solidEdges'
