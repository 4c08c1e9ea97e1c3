/**
 * Every tolerance of the computation, with its reason. Lengths are in millimetres.
 */

/** Points closer than this are one vertex: far below any workshop's reach, far above rounding. */
export const VERTEX_TOLERANCE = 1e-6

/** Lengths in mm that differ by less were one before they were reckoned with: rounding of parts of up to some metres. */
export const LENGTH_ROUNDING = 1e-9

/** A direction whose sine to another is less runs along it: off by a nanometre in a metre. */
export const DIRECTION_TOLERANCE = 1e-9

/** Lines of a sketch whose sine to one another is less are parallel: what the solver leaves of a short line. */
export const DRAWN_DIRECTION = 1e-6

/** Angles in radians that differ by less are one. */
export const ANGLE_TOLERANCE = 1e-9

/** Places along a piece, from 0 to 1, this near to an end are the end. */
export const PARAMETER_TOLERANCE = 1e-9

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
