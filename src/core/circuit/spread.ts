/**
 * How a figure follows a branch that nobody has said: were that to take `1 + x` times what is usual, by itself, the figure would be
 * `mean + slope·x / (1 + bend·x)`, exact for one changed conductance of a direct network.
 */
export interface Common {
  branch: number;
  slope: number;
  bend: number;
}

/** How far a figure stands off with good parts, and what of that is one branch's that nobody has said. */
export interface Spread {
  sigma: number;
  common?: Common;
}
