/**
 * Every tolerance of the computation, with its reason. Lengths are in millimetres.
 */

/** Points closer than this are one vertex: far below any workshop's reach, far above rounding. */
export const VERTEX_TOLERANCE = 1e-6

/** A residual below this counts as met. It leaves three digits to the vertex tolerance. */
export const SOLVE_TOLERANCE = 1e-9

/** Where the solver stops improving: close to rounding for parts of up to some metres. */
export const SOLVE_GOAL = 1e-12

/** A matrix entry below this share of its row's start is rounding, not rank. */
export const RANK_TOLERANCE = 1e-9

/** Share of a probe motion below which a coordinate counts as standing still. */
export const MOTION_TOLERANCE = 1e-7

/** The largest coordinate accepted, 1 km: beyond it the vertex tolerance nears rounding. */
export const LARGEST_LENGTH = 1e6

/** Default distance between the true surface and the chords of a displayed mesh. */
export const DISPLAY_CHORD_TOLERANCE = 0.02

/** Default distance between the true surface and the chords of an exported mesh. */
export const EXPORT_CHORD_TOLERANCE = 0.01
