/** Files of solids and of triangles that can be brought in. */
export const FOREIGN_FILES = '.step,.stp,.stl,.3mf'
